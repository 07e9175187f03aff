<script setup lang="ts">
import { desk, type Contact } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { say, sayProblem } from '../../say'
import { useRead } from '../../queries'

const t = text.contacts
const { value: pairs, problem, load } = useRead(['twice'], desk.twice, { on: (event) => event.type === 'contact' })
const { value: acts } = useRead(['contact-acts'], desk.contactActs, { on: (event) => event.type === 'contact' })

async function undo(act: number) {
  try {
    say(t.keptOnUndo((await desk.undoContactAct(act)).kept))
  } catch (error) {
    sayProblem(error)
  }
  await load()
}

async function merge(keep: Contact, gone: Contact) {
  try {
    const { act } = await desk.merge(keep, gone)
    say(t.mergedNow, { label: text.panel.undo, run: () => void undo(act) })
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <div class="page">
    <header><h1>{{ t.twiceTitle }}</h1></header>
    <p>{{ t.twiceHelp }}</p>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!pairs && !problem" />
    <p v-if="pairs?.length === 0" class="none">{{ t.twiceNone }}</p>
    <ul class="pairs">
      <li v-for="pair in pairs" :key="`${pair.one.id}-${pair.other.id}`">
        <div v-for="[keep, gone] in [[pair.one, pair.other], [pair.other, pair.one]]" :key="keep!.id">
          <RouterLink :to="{ name: 'contact', params: { id: keep!.id } }">{{ keep!.name }}</RouterLink>
          <p class="mail">{{ keep!.email }}</p>
          <p class="quiet">{{ [keep!.organisation, keep!.reference, keep!.groups.join(', ')].filter(Boolean).join(' · ') }}</p>
          <ElButton size="small" @click="merge(keep!, gone!)">{{ t.keep(keep!.email) }}</ElButton>
        </div>
      </li>
    </ul>
    <section v-if="acts?.length">
      <h2>{{ t.latest }}</h2>
      <ul class="acts">
        <li v-for="act in acts" :key="act.id">
          <span class="quiet">{{ dayAndTime(act.at) }}</span> {{ act.summary }}
          <span v-if="act.undoneAt" class="quiet">{{ t.undone }}</span>
          <ElButton v-else type="primary" link size="small" :aria-label="`${text.panel.undo}: ${act.summary}`" @click="undo(act.id)">{{ text.panel.undo }}</ElButton>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.pairs,
.acts {
  margin: 14px 0;
  padding: 0;
  list-style: none;
}
.pairs li {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 20px;
  margin-bottom: 10px;
  padding: 14px 18px;
  border: 1px solid var(--line);
  background: var(--card);
}
.pairs a {
  font-weight: 600;
}
.mail {
  overflow-wrap: anywhere;
}
.none {
  margin-top: 12px;
  padding: 16px;
  background: var(--card);
}
h2 {
  margin-top: 24px;
  font-size: 19px;
}
</style>
