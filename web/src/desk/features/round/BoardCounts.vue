<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../../../text/desk'
import type { Filter } from './board-filters'
import type { Counts } from './use-tally'

/** How much has come, in words; each opens the list it counts. What else is counted stands on the filters. */
const props = defineProps<{ counts: Counts }>()
defineEmits<{ open: [list: Filter] }>()
const t = text.round.counts

const totals = computed<{ list: Filter; words: string; tone?: string }[]>(() => [
  { list: 'complete', words: t.complete(props.counts.complete, props.counts.asked, props.counts.percent), tone: 'strong' },
  { list: 'sent', words: t.files(props.counts.files, t.senders(props.counts.senders)) },
])
</script>

<template>
  <p class="counts">
    <ElButton v-for="one in totals" :key="one.list" link :class="one.tone" @click="$emit('open', one.list)">{{ one.words }}</ElButton>
  </p>
</template>

<style scoped>
.counts {
  display: flex;
  gap: 12px;
}
.el-button {
  min-height: 26px;
  text-decoration: underline dotted var(--line-strong);
  text-underline-offset: 4px;
}
.el-button:hover {
  text-decoration: underline solid var(--oak);
}
.el-button.strong {
  font-weight: 700;
}
</style>
