<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type ListedParcel } from '../../../api/desk'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import { text } from '../../../text/desk'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { sayProblem } from '../../say'
import { may } from '../../use-session'
import OutTabs from './OutTabs.vue'

/** Everything that was handed out, and what of it was taken away. */
const t = text.parcels
const WAIT_MILLISECONDS = 300
const route = useRoute()
const router = useRouter()
const find = ref('')
const words = refDebounced(find, WAIT_MILLISECONDS)
const mine = computed(() => route.query.whose === 'mine')
const { value: page, problem, load } = useRead(computed(() => ['parcels', words.value.trim(), mine.value]), () => desk.parcels(words.value.trim(), undefined, mine.value), { on: (event) => event.type === 'parcel' || event.type === 'taken' })
const earlier = ref<ListedParcel[]>([])
const moreThere = ref(false)
watch(page, (now) => {
  earlier.value = []
  moreThere.value = !!now?.more
})
const all = computed(() => [...(page.value?.parcels ?? []), ...earlier.value])
const state = computed(() => (typeof route.query.state === 'string' && route.query.state in t.lists ? route.query.state : undefined))
const shown = computed(() => all.value.filter((one) => !state.value || one.state === state.value))
const counts = computed(() => all.value.reduce<Record<string, number>>((sum, one) => ({ ...sum, [one.state]: (sum[one.state] ?? 0) + 1 }), {}))

/** The same list with another choice in its address. */
function choose(what: { state?: string | undefined; whose?: string | undefined }) {
  void router.replace({ query: { ...route.query, ...what } })
}

async function make() {
  try {
    await router.push({ name: 'parcel', params: { id: (await desk.beginParcel()).id } })
  } catch (error) {
    sayProblem(error)
  }
}

async function more() {
  try {
    const next = await desk.parcels(words.value.trim(), all.value.at(-1)?.id, mine.value)
    earlier.value.push(...next.parcels)
    moreThere.value = next.more
  } catch (error) {
    sayProblem(error)
  }
}

function peopleWords(one: ListedParcel): string {
  const left = one.people - one.named.length
  return [one.named.join(', '), left > 0 && t.andMore(left), one.open && t.anybody].filter(Boolean).join(', ')
}

function takenWords(one: ListedParcel): string {
  if (one.state === 'DRAFT') return one.whenReady ? t.waitsForFiles : ''
  const parts = [one.people > 0 && t.doneOf(one.done, one.people), one.begun > 0 && t.begunBy(one.begun), one.open && (one.byAnybody > 0 ? t.byAnybody(one.byAnybody) : one.people === 0 && t.nobodyYet)]
  return parts.filter(Boolean).join(', ')
}
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ t.title }}</h1>
      <div v-if="may('HAND_OUT')" class="actions"><ElButton type="primary" @click="make">{{ t.make }}</ElButton></div>
    </header>
    <OutTabs />
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!page && !problem" />
    <template v-if="page">
      <div class="tools">
        <div class="choices">
          <div class="chips" role="group" :aria-label="t.whose">
            <ElButton :aria-pressed="!mine" @click="choose({ whose: undefined })">{{ t.office }}</ElButton>
            <ElButton :aria-pressed="mine" @click="choose({ whose: 'mine' })">{{ t.mine }}</ElButton>
          </div>
          <div class="chips" role="group" :aria-label="t.filters">
            <ElButton :aria-pressed="!state" @click="choose({ state: undefined })">{{ t.all }}<span>{{ all.length }}</span></ElButton>
            <template v-for="(label, key) in t.lists" :key="key">
              <ElButton v-if="counts[key] || state === key" :aria-pressed="state === key" @click="choose({ state: state === key ? undefined : key })">{{ label }}<span>{{ counts[key] ?? 0 }}</span></ElButton>
            </template>
          </div>
        </div>
        <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      </div>
      <EmptyPart v-if="shown.length === 0" :words="all.length === 0 && !words && !mine ? t.none : t.noneFound" />
      <table v-else class="plain">
        <thead>
          <tr>
            <th scope="col">{{ t.columns.title }}</th>
            <th scope="col">{{ t.columns.people }}</th>
            <th scope="col">{{ t.columns.files }}</th>
            <th scope="col">{{ t.columns.taken }}</th>
            <th scope="col">{{ t.columns.until }}</th>
            <th scope="col">{{ t.by }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shown" :key="one.id">
            <td><RouterLink :to="{ name: 'parcel', params: { id: one.id } }">{{ one.title || t.untitled }}</RouterLink><div class="quiet">{{ t.states[one.state] }}<template v-if="one.passcode">, {{ t.passcode }}</template></div></td>
            <td>{{ peopleWords(one) }}</td>
            <td class="files">{{ t.fileCount(one.files) }}<div class="quiet">{{ sizeWords(one.bytes) }}</div><div v-if="one.lostFiles > 0" class="error">{{ t.lost(one.lostFiles) }}</div></td>
            <td>{{ takenWords(one) }}<div v-if="one.lastAt" class="quiet">{{ dayAndTime(one.lastAt) }}</div></td>
            <td class="files"><template v-if="one.state !== 'DRAFT'">{{ dayAndTime(one.endsAt) }}</template><div v-if="one.endsSoon" class="soon">{{ t.endsSoon }}</div></td>
            <td class="files">{{ one.by }}<div v-if="!one.wholeOffice" class="quiet">{{ t.keptToSome }}</div></td>
          </tr>
        </tbody>
      </table>
      <ElButton v-if="moreThere" class="more" @click="more">{{ t.more }}</ElButton>
    </template>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 14px;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 22px;
}
.find {
  width: 320px;
}
.files {
  white-space: nowrap;
}
.soon {
  color: var(--acorn-text);
}
.more {
  margin-top: 12px;
}
</style>
