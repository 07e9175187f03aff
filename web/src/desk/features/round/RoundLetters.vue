<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'

/** One line under the ruler: how many letters went, which go next, and the way to all of them. */
const props = defineProps<{ roundId: number; ticks: Schemas['LetterTick'][]; sent: number; zone: string; folded?: boolean }>()
const t = text.post
const next = computed(() => props.ticks.find((tick) => tick.planned))
</script>

<template>
  <p v-if="ticks.length" class="letters" :class="{ folded }">
    <span v-if="!folded" class="key" aria-hidden="true"><i class="solid"></i> {{ t.legendSent }} <i></i> {{ t.legendPlanned }}</span>
    <RouterLink :to="{ name: 'post', query: { round: roundId } }">{{ sent > 0 ? t.sentSoFar(sent) : t.ofRound }}</RouterLink>
    <span v-if="next">{{ t.nextOfRound(dayAndTime(next.at, zone), t.several[next.kind]!(next.letters)) }}</span>
  </p>
</template>

<style scoped>
.letters {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin-bottom: 10px;
  font-size: 15px;
}
.folded {
  flex-wrap: nowrap;
  margin: 0;
  white-space: nowrap;
}
.letters a {
  display: inline-block;
  min-height: 24px;
  line-height: 24px;
}
.key {
  color: var(--slate);
}
i {
  display: inline-block;
  width: 11px;
  height: 8px;
  margin: 0 3px 0 8px;
  border: 1.5px solid var(--oak);
}
.key i:first-child {
  margin-left: 0;
}
i.solid {
  background: var(--oak);
}
</style>
