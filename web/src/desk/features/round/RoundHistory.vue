<script setup lang="ts">
import { desk, type Schemas } from '../../../api/desk'
import { text, withCount } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import { useRead } from '../../queries'
import { useLinkActs } from '../links/use-link-acts'
import { useActs } from './use-acts'

/** What was done in the round, the newest first; each can be undone for as long as it holds. */
const props = defineProps<{ roundId: number; zone: string }>()
const shown = defineModel<boolean>({ required: true })
const t = text.round
const { value: acts, load } = useRead(['acts', props.roundId], () => desk.acts(props.roundId), { on: (event) => event.roundId === props.roundId && event.type !== 'letter' })
const { undo } = useActs(props.roundId)
const { undo: undoLinks } = useLinkActs()

function words(act: Schemas['DoneAct']): string {
  const what = withCount(text.panel.events[act.kind], act.people) ?? act.kind
  if (act.link) return `${what}${act.said ? ` ${act.said}` : ''}`
  return `${what}${act.said ? ` ${act.said}` : ''}: ${act.people === 1 ? act.name : text.acts.people(act.people)}`
}

async function take(act: Schemas['DoneAct']) {
  await (act.link ? undoLinks(act.id) : undo(act.id))
  await load()
}
</script>

<template>
  <ElDrawer v-model="shown" :title="t.history" size="440px" append-to-body>
    <ElSkeleton v-if="!acts" :rows="6" animated />
    <p v-else-if="acts.length === 0" class="quiet">{{ t.nothingDone }}</p>
    <ol v-else class="acts">
      <li v-for="act in acts" :key="`${act.link}${act.id}`">
        <span class="quiet">{{ dayAndTime(act.at, zone) }}, {{ act.by }}</span>
        <span :class="{ undone: act.undone }">{{ words(act) }}</span>
        <span v-if="act.undone" class="quiet">{{ text.acts.undone }}</span>
        <ElButton v-else size="small" :aria-label="`${text.panel.undo}: ${words(act)}`" @click="take(act)">{{ text.panel.undo }}</ElButton>
      </li>
    </ol>
  </ElDrawer>
</template>

<style scoped>
.acts {
  display: grid;
  gap: 12px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
}
li > :first-child {
  grid-column: 1 / -1;
}
.undone {
  text-decoration: line-through;
}
</style>
