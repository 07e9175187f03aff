<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime, zoneWords } from '../../../shared/time'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import NamedMenu from '../../fields/NamedMenu.vue'
import { sayProblem } from '../../say'
import { useRead } from '../../queries'
import SeriesList from '../series/SeriesList.vue'
import { may } from '../../use-session'

const t = text.rounds
const { value: rounds, problem, load } = useRead(['rounds'], desk.rounds, { on: (event) => !['contact', 'letter', 'link'].includes(event.type) })
const { value: templates } = useRead(['templates'], desk.templates)
const route = useRoute()
const router = useRouter()
const find = ref('')
const LISTS = ['GATHERING', 'DRAFT', 'CLOSED'] as const
type List = (typeof LISTS)[number]
const list = computed<List | undefined>({
  get: () => LISTS.find((one) => one === route.query.state),
  set: (state) => void router.replace({ query: { state } }),
})
const listOf = (round: Schemas['ListedRound']): List => (round.state === 'DRAFT' || round.state === 'GATHERING' ? round.state : 'CLOSED')
const numbers = computed(() => Object.fromEntries(LISTS.map((one) => [one, rounds.value?.filter((round) => listOf(round) === one).length ?? 0])) as Record<List, number>)

/** What moves stands first, the nearest deadline on top; then drafts, the last touched on top; then what is over, the latest on top. */
function order(a: Schemas['ListedRound'], b: Schemas['ListedRound']): number {
  const later = (one: string | null, other: string | null) => ((one ?? '') < (other ?? '') ? -1 : (one ?? '') > (other ?? '') ? 1 : 0)
  const lists = LISTS.indexOf(listOf(a)) - LISTS.indexOf(listOf(b))
  if (lists !== 0) return lists
  return listOf(a) === 'GATHERING' ? later(a.deadline, b.deadline) : listOf(a) === 'DRAFT' ? later(b.changedAt, a.changedAt) : later(b.deadline, a.deadline)
}

const shown = computed(() => {
  const words = find.value.trim().toLocaleLowerCase()
  return (rounds.value ?? []).filter((round) => (!list.value || listOf(round) === list.value) && round.title.toLocaleLowerCase().includes(words)).sort(order)
})

const kept = computed(() => templates.value?.filter((one) => one.kind === 'ROUND') ?? [])

async function fromTemplate(template: Schemas['KeptTemplate']) {
  try {
    const draft = await desk.begin(template.sheet)
    await router.push({ name: 'sheet', params: { id: draft.head.id } })
  } catch (error) {
    sayProblem(error)
  }
}

function target(round: Schemas['ListedRound']) {
  return { name: round.state === 'DRAFT' ? 'sheet' : 'round', params: { id: round.id } }
}
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ t.title }}</h1>
      <div class="actions">
        <NamedMenu v-if="kept.length > 0" :label="text.templates.fromRound" :names="kept.map((one) => one.name)" @pick="(n) => fromTemplate(kept[n]!)" />
        <RouterLink v-if="may('CHANGE')" class="button primary" to="/rounds/new">{{ t.compose }}</RouterLink>
      </div>
    </header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!rounds && !problem" />
    <EmptyPart v-if="rounds?.length === 0" :words="t.empty" />
    <div v-if="rounds && rounds.length > 0" class="tools">
      <div class="chips" role="group" :aria-label="t.filters">
        <ElButton :aria-pressed="!list" @click="list = undefined">{{ t.all }} <span>{{ rounds.length }}</span></ElButton>
        <ElButton v-for="one in LISTS" :key="one" :aria-pressed="list === one" @click="list = list === one ? undefined : one">{{ t.lists[one] }} <span>{{ numbers[one] }}</span></ElButton>
      </div>
      <ElInput v-model="find" class="find" type="search" :aria-label="t.find" :placeholder="t.find" />
    </div>
    <p v-if="rounds && rounds.length > 0 && shown.length === 0" class="quiet">{{ t.noneFits }}</p>
    <table v-if="shown.length > 0" class="plain">
      <thead>
        <tr>
          <th scope="col">{{ t.round }}</th>
          <th scope="col">{{ t.state }}</th>
          <th scope="col">{{ t.deadline }}</th>
          <th scope="col">{{ t.inSoFar }}</th>
          <th scope="col" class="number">{{ t.toCheck }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="round in shown" :key="round.id">
          <td><RouterLink :to="target(round)">{{ round.title || t.untitled }}</RouterLink></td>
          <td>{{ round.state === 'DRAFT' ? t.saved(dayAndTime(round.changedAt)) : text.state[round.state] }}</td>
          <td><template v-if="round.deadline && round.zone">{{ dayAndTime(round.deadline, round.zone) }} <span class="quiet">{{ zoneWords(round.zone) }}</span></template></td>
          <td>
            <div v-if="round.counts" class="in">
              <RouterLink class="count" :to="{ name: 'round', params: { id: round.id }, query: { show: 'complete' } }">{{ t.of(round.counts.complete, round.counts.asked) }}</RouterLink>
              <span class="strands" aria-hidden="true">
                <i v-for="n in 10" :key="n" :class="{ full: n * 10 <= round.counts.percent }"></i>
              </span>
              <span class="quiet">{{ round.counts.percent }} %</span>
            </div>
          </td>
          <td class="number"><RouterLink v-if="round.counts?.toCheck" class="count" :to="{ name: 'review', params: { id: round.id } }">{{ round.counts.toCheck }}</RouterLink></td>
        </tr>
      </tbody>
    </table>
    <SeriesList />
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 20px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 10px;
}
.find {
  width: 240px;
}
.actions {
  display: flex;
  gap: 10px;
}
.from {
  width: auto;
}
td a.count {
  color: inherit;
  font: inherit;
}
td a {
  font: 600 17px var(--heading);
}
.number {
  text-align: right !important;
}
.in {
  display: flex;
  align-items: center;
  gap: 10px;
  white-space: nowrap;
}
.strands {
  display: inline-flex;
  gap: 2px;
}
.strands i {
  width: 9px;
  height: 7px;
  border: 1px solid var(--line-strong);
  border-radius: 1px;
}
.strands i:nth-child(even) {
  width: 5px;
  height: 13px;
}
.strands i {
  align-self: center;
}
.strands i.full {
  border-color: var(--oak);
  background: var(--oak);
}
</style>
