<script setup lang="ts">
import { ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import AskOnce from '../../AskOnce.vue'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'

/** What was changed by hand on the disk, and what can be done about each. */
const t = text.folders
type Row = Schemas['FindingRow']
type Choice = keyof typeof t.choices
const { value: list, problem, load } = useRead(['findings'], desk.findings, { on: (event) => event.type === 'filing' })
const looking = ref(false)

function offered(row: Row): Choice[] {
  const choices: Choice[] = row.kind === 'MISSING' ? (row.movedTo ? ['FOLLOW', 'PUT_BACK'] : ['GIVE_UP']) : row.kind === 'ALTERED' ? ['TAKE_OVER'] : ['TAKE_IN']
  return [...choices, row.leftAlone ? 'MIND' : 'LEAVE']
}
const question = (choice: Choice) => (choice === 'TAKE_OVER' ? t.takeOverAsk : choice === 'GIVE_UP' ? t.giveUpAsk : '')

async function look() {
  looking.value = true
  try {
    await desk.lookAtFolders()
    await load()
  } catch (error) {
    sayProblem(error)
  }
  looking.value = false
}

async function settle(row: Row, choice: Choice) {
  try {
    await desk.settleFinding(row.id, choice)
    say(t.settled)
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <section>
    <p class="quiet">{{ t.handIntro }} {{ list?.lookedAt ? t.lookedAt(dayAndTime(list.lookedAt)) : t.neverLooked }} <ElButton size="small" :loading="looking" @click="look">{{ t.look }}</ElButton></p>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!list && !problem" />
    <EmptyPart v-if="list && list.findings.length === 0" :words="t.handNone" />
    <ul v-if="list" class="findings">
      <li v-for="row in list.findings" :key="row.id" :class="{ alone: row.leftAlone }">
        <div>
          <strong>{{ t.kinds[row.kind] }}</strong> <span class="mono">{{ row.place }}</span>
          <p class="quiet">{{ [row.person, row.kind === 'MISSING' ? '' : sizeWords(row.bytes), t.foundAt(dayAndTime(row.foundAt)), row.leftAlone ? t.leftAlone : ''].filter(Boolean).join(', ') }}</p>
          <p v-if="row.movedTo">{{ t.movedTo(row.movedTo) }}</p>
        </div>
        <div class="choices">
          <template v-for="choice in offered(row)" :key="choice">
            <AskOnce v-if="question(choice)" plain small :label="t.choices[choice]" :name="`${t.choices[choice]}: ${row.place}`" :question="question(choice)" @sure="settle(row, choice)" />
            <ElButton v-else size="small" :aria-label="`${t.choices[choice]}: ${row.place}`" @click="settle(row, choice)">{{ t.choices[choice] }}</ElButton>
          </template>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.findings {
  display: grid;
  gap: 8px;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 14px;
  padding: 8px 12px;
  border: 1px solid var(--line);
  border-left: 5px solid var(--acorn);
  border-radius: 4px;
  background: var(--card);
}
li.alone {
  border-left-color: var(--line-strong);
}
.mono {
  overflow-wrap: anywhere;
}
p {
  margin: 2px 0 0;
}
.choices {
  display: flex;
  gap: 8px;
  align-items: start;
}
</style>
