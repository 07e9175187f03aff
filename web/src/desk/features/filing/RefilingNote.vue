<script setup lang="ts">
import { computed } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import AskOnce from '../../AskOnce.vue'
import { useRead } from '../../queries'
import { sayProblem } from '../../say'

/** A batch of moves: how far it is, what stayed and why, and taking it back. */
const props = defineProps<{ id: number }>()
const emit = defineEmits<{ begun: [id: number] }>()
const t = text.filing
const { value: view } = useRead(computed(() => ['refiling', props.id]), () => desk.refiling(props.id), { on: (event) => event.type === 'filing' })
const batch = computed(() => view.value?.refiling)
const share = computed(() => (batch.value ? Math.floor((100 * (batch.value.done + batch.value.failed)) / Math.max(1, batch.value.total)) : 0))

async function undo() {
  try {
    emit('begun', (await desk.undoRefiling(props.id)).id)
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <section v-if="batch && view" class="batch" role="status">
    <template v-if="!batch.endedAt">
      <p>{{ t.begun }}: {{ batch.failed ? t.progressFailed(batch.done, batch.total, batch.failed) : t.progress(batch.done, batch.total) }}</p>
      <ElProgress :percentage="share" :aria-label="t.begun" />
    </template>
    <p v-else>
      {{ batch.undoes ? t.finishedBack(batch.done) : t.finished(batch.done) }}<template v-if="batch.failed">; {{ t.stayed(batch.failed) }}</template>.
      <AskOnce v-if="!batch.undone && batch.done > 0 && !batch.undoes" plain small :label="t.undo" :question="t.undo + '?'" @sure="undo" />
      <RouterLink :to="{ name: 'journal', query: { batch: id } }">{{ t.toJournal }}</RouterLink>
    </p>
    <ul v-if="view.stayed.length > 0">
      <li v-for="one in view.stayed" :key="one.file"><span class="mono">{{ one.from }}</span>: {{ one.why }}</li>
    </ul>
  </section>
</template>

<style scoped>
.batch {
  margin: 14px 0;
  padding: 10px 14px;
  border-left: 5px solid var(--oak);
  background: var(--card);
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin: 0;
}
</style>
