<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../../../text/desk'
import type { Filter } from './board-filters'
import type { Counts } from './use-tally'

/** The totals in words; each opens the list it counts. */
const props = defineProps<{ counts: Counts; overdue: number; handOver: number }>()
defineEmits<{ open: [list: Filter] }>()
const t = text.round.counts

const totals = computed(() => {
  const { counts } = props
  const all: { list: Filter; words: string; tone?: string; hide?: boolean }[] = [
    { list: 'complete', words: t.complete(counts.complete, counts.asked, counts.percent), tone: 'strong' },
    { list: 'overdue', words: t.overdue(props.overdue), tone: 'rowan', hide: props.overdue === 0 },
    { list: 'toCheck', words: t.toCheck(counts.toCheck), hide: counts.toCheck === 0 },
    { list: 'claimed', words: t.claimed(counts.claimed), hide: counts.claimed === 0 },
    { list: 'sent', words: t.files(counts.files, counts.senders) },
    { list: 'handOver', words: t.handOver(props.handOver), hide: props.handOver === 0 },
    { list: 'waived', words: t.waived(counts.waived), hide: counts.waived === 0 },
    { list: 'paused', words: t.paused(counts.paused), hide: counts.paused === 0 },
    { list: 'walkIns', words: t.walkIns(counts.walkIns), hide: counts.walkIns === 0 },
  ]
  return all.filter((one) => !one.hide)
})
</script>

<template>
  <p class="counts">
    <button v-for="one in totals" :key="one.list" type="button" :class="one.tone" @click="$emit('open', one.list)">{{ one.words }}</button>
  </p>
</template>

<style scoped>
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  margin-bottom: 12px;
}
button {
  min-height: 28px;
  padding: 0;
  border: 0;
  background: none;
  text-decoration: underline dotted var(--line-strong);
  text-underline-offset: 4px;
  cursor: pointer;
}
button:hover {
  text-decoration: underline solid var(--oak);
}
.strong {
  font-weight: 700;
}
.rowan {
  color: var(--rowan);
}
</style>
