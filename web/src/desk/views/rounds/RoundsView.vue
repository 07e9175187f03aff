<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { useRouter } from 'vue-router'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime, zoneWords } from '../../../ui/time'
import FailureNote from '../../FailureNote.vue'
import NamedMenu from '../../fields/NamedMenu.vue'
import { sayProblem } from '../../say'
import { useLive } from '../../use-live'
import { useLoaded } from '../../use-loaded'
import SeriesList from '../series/SeriesList.vue'

const t = text.rounds
const { value: rounds, problem, load } = useLoaded(desk.rounds)

const { value: templates, load: loadTemplates } = useLoaded(desk.templates)
const router = useRouter()
onMounted(() => Promise.all([load(), loadTemplates()]))

const kept = computed(() => templates.value?.filter((one) => one.kind === 'ROUND') ?? [])

async function fromTemplate(template: Schemas['KeptTemplate']) {
  try {
    const draft = await desk.begin(template.sheet)
    await router.push({ name: 'sheet', params: { id: draft.head.id } })
  } catch (error) {
    sayProblem(error)
  }
}
useLive(() => void load(), () => void load())

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
        <RouterLink class="button primary" to="/rounds/new">{{ t.compose }}</RouterLink>
      </div>
    </header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <p v-if="!rounds && !problem" class="quiet">{{ text.loading }}</p>
    <p v-if="rounds?.length === 0" class="quiet">{{ t.empty }}</p>
    <table v-if="rounds && rounds.length > 0" class="plain">
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
        <tr v-for="round in rounds" :key="round.id">
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
