<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, reactive, ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import DateField from '../../fields/DateField.vue'
import TimeField from '../../fields/TimeField.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { dayAndTime } from '../../../shared/time'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** Who gets one letter of a plan and who does not, and why; it is moved, skipped, held or let go for all or for some. */
const props = defineProps<{ round: number; at: string; held: boolean }>()
const emit = defineEmits<{ changed: []; gone: [] }>()
type Act = 'MOVE' | 'SKIP' | 'HOLD' | null
type Person = Schemas['OutlookPerson']
const WAIT_MILLISECONDS = 300
const t = text.goes
const find = ref('')
const words = refDebounced(find, WAIT_MILLISECONDS)
const chosen = reactive(new Set<number>())
const moving = ref(false)
const move = reactive({ day: props.at.slice(0, 10), time: '09:00' })
const { value: found, problem, load } = useRead(computed(() => ['outlook-people', props.round, props.at, words.value]), () => desk.outlookPeople(props.round, props.at, words.value), { on: () => true })
const people = computed(() => found.value?.people ?? [])
const goes = computed(() => people.value.filter((one) => !one.reason))
const not = computed(() => people.value.filter((one) => one.reason))
const kind = computed(() => people.value[0]?.kind)
const stopped = computed(() => props.held || people.value.some((one) => (one.reason === 'SKIPPED' || one.reason === 'HELD' || one.moved) && (chosen.size === 0 || chosen.has(one.basketId))))

function why(one: Person): string {
  const reason = text.post.reasons[one.reason!] ?? one.reason!
  const since = one.since && t.since[one.reason!]
  return since ? since(dayAndTime(one.since!)) : reason
}

/** The hour where the person is, where that is another one than the office's. */
const there = (one: Person) => one.localAt.slice(11, 16)
const elsewhere = (one: Person) => !dayAndTime(one.at).endsWith(there(one))

async function decide(act: Act, to: string | null = null) {
  const baskets = chosen.size > 0 ? [...chosen] : null
  const { batch, letters } = await desk.changeOutlook({ roundId: props.round, at: props.at, baskets, act, to })
  chosen.clear()
  moving.value = false
  const did = { MOVE: t.didMOVE, SKIP: t.didSKIP, HOLD: t.didHOLD, RELEASE: t.didRELEASE }[act ?? 'RELEASE']
  say(did(letters), { label: text.panel.undo, run: () => void undo(batch) })
  emit('changed')
  if (act === 'MOVE' && !baskets) emit('gone')
  else await load()
}

async function quickly(act: Act) {
  try {
    await decide(act)
  } catch (error) {
    sayProblem(error)
  }
}

async function undo(batch: number) {
  try {
    await desk.undoOutlook(batch)
    say(t.undone)
  } catch (error) {
    sayProblem(error)
  }
  emit('changed')
}

const { problem: refused, busy, submit } = useSubmit(() => decide('MOVE', move.day && move.time ? `${move.day}T${move.time}:00` : null))

function toggle(one: Person) {
  if (!chosen.delete(one.basketId)) chosen.add(one.basketId)
}
</script>

<template>
  <aside class="sheet" :aria-label="kind ? text.post.kinds[kind] : t.title">
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!found && !problem" />
    <template v-if="found">
      <h2>{{ kind ? text.post.kinds[kind] : t.title }}, {{ dayAndTime(at) }}</h2>
      <div class="actions">
        <span class="quiet">{{ chosen.size > 0 ? t.chosen(chosen.size) : t.all }}:</span>
        <ElButton size="small" :aria-expanded="moving" @click="moving = !moving">{{ t.move }}</ElButton>
        <ElButton size="small" @click="quickly('SKIP')">{{ t.skip }}</ElButton>
        <ElButton v-if="!held" size="small" @click="quickly('HOLD')">{{ t.hold }}</ElButton>
        <ElButton v-if="stopped" size="small" @click="quickly(null)">{{ t.release }}</ElButton>
      </div>
      <form v-if="moving" novalidate @submit.prevent="submit" @keydown.esc.stop="moving = false">
        <FieldBox id="move-day" v-slot="{ attrs }" :label="t.moveDay" :error="refused?.at('to') || (refused && refused.errors.length === 0 ? refused.detail : '')"><DateField v-bind="attrs" v-model="move.day" /></FieldBox>
        <FieldBox id="move-time" v-slot="{ attrs }" :label="t.moveTime"><TimeField v-bind="attrs" v-model="move.time" /></FieldBox>
        <span><ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ t.moveGo }}</ElButton> <ElButton size="small" @click="moving = false">{{ t.cancel }}</ElButton></span>
      </form>
      <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      <p v-if="found.all > people.length" class="quiet">{{ t.more(people.length, found.all) }}</p>
      <template v-for="part in [{ words: t.who, list: goes }, { words: t.notWho, list: not }]" :key="part.words">
        <h3 v-if="part.list.length > 0">{{ part.words }} <span class="quiet">{{ part.list.length }}</span></h3>
        <ul>
          <li v-for="one in part.list" :key="`${one.basketId} ${one.stepAt}`">
            <ElCheckbox :model-value="chosen.has(one.basketId)" :aria-label="t.chooseOne(one.name)" @change="toggle(one)" />
            <RouterLink :to="{ name: 'round', params: { id: round }, query: { basket: one.basketId } }">{{ one.name }}</RouterLink>
            <span class="quiet">{{ [one.reason && why(one), !one.reason && elsewhere(one) && t.there(there(one)), one.along && t.alongWith(one.along), one.moved && t.byHand].filter(Boolean).join(', ') }}</span>
          </li>
        </ul>
      </template>
    </template>
  </aside>
</template>

<style scoped>
.sheet {
  position: sticky;
  top: 12px;
  max-height: calc(100vh - 40px);
  padding: 16px 20px;
  overflow: auto;
  border: 1px solid var(--line);
  border-top: 6px double var(--oak);
  background: var(--card);
}
h2 {
  margin-bottom: 10px;
  font-size: 18px;
}
h3 {
  margin: 14px 0 4px;
  font-size: 16px;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 10px;
}
.actions .el-button {
  margin: 0;
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
  align-items: start;
  margin-bottom: 12px;
  padding-left: 12px;
  border-left: 4px solid var(--line);
}
form > span {
  grid-column: 1 / -1;
}
.find {
  max-width: 280px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
}
</style>
