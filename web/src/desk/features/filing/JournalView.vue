<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type JournalQuery, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import ChoiceField from '../../fields/ChoiceField.vue'
import DateField from '../../fields/DateField.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'

/** Everything that was done to files, the newest first. */
const t = text.journal
const WAIT_MILLISECONDS = 300
const route = useRoute()
const router = useRouter()
type Act = Schemas['JournalLine']['act']
const number = (given: unknown) => (given ? Number(given) : undefined)
const find = ref(typeof route.query.find === 'string' ? route.query.find : '')
const words = refDebounced(find, WAIT_MILLISECONDS)
const act = ref<Act | null>(null)
const from = ref('')
const to = ref('')
const round = ref<number | null>(number(route.query.round) ?? null)
const { value: rounds } = useRead(['rounds'], desk.rounds)
const roundChoices = computed(() => [{ value: null, label: t.allRounds }, ...(rounds.value ?? []).filter((one) => one.state !== 'DRAFT').map((one) => ({ value: one.id as number | null, label: one.title }))])
const actChoices = computed(() => [{ value: null, label: t.all }, ...Object.entries(t.acts).map(([value, label]) => ({ value: value as Act | null, label }))])

const query = computed<JournalQuery>(() => ({
  file: number(route.query.file), batch: number(route.query.batch), round: round.value ?? undefined, act: act.value ?? undefined, find: words.value.trim() || undefined,
  from: from.value ? `${from.value}T00:00:00Z` : undefined, to: to.value ? new Date(Date.parse(`${to.value}T00:00:00Z`) + 86_400_000).toISOString() : undefined,
}))
const { value: page, problem, load } = useRead(computed(() => ['journal', query.value]), () => desk.journal(query.value), { on: (event) => ['filing', 'arrival', 'basket'].includes(event.type) })
const older = ref<Schemas['JournalLine'][]>([])
const more = ref(false)
watch(page, (now) => {
  older.value = []
  more.value = now?.more ?? false
})
const lines = computed(() => [...(page.value?.lines ?? []), ...older.value])
const csv = computed(() => `/api/journal.csv?${new URLSearchParams(Object.entries(query.value).filter(([, value]) => value !== undefined).map(([key, value]) => [key, String(value)]))}`)
const narrowed = computed(() => Object.values(query.value).some((value) => value !== undefined))

async function showOlder() {
  try {
    const next = await desk.journal({ ...query.value, before: lines.value[lines.value.length - 1]?.id })
    older.value = [...older.value, ...next.lines]
    more.value = next.more
  } catch (error) {
    sayProblem(error)
  }
}

async function undo(line: Schemas['JournalLine']) {
  try {
    await desk.undoEntry(line.id)
    say(t.tookBack)
    await load()
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header>
      <div>
        <h1>{{ t.title }}</h1>
        <p class="quiet">{{ t.intro }}</p>
      </div>
      <a class="button" :href="csv" download>{{ t.take }}</a>
    </header>
    <p v-if="query.file || query.batch">{{ query.file ? t.ofFile : t.ofBatch }} <ElButton type="primary" link size="small" @click="router.replace({ query: {} })">{{ t.every }}</ElButton></p>
    <div class="tools">
      <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      <ChoiceField v-model="act" :choices="actChoices" :label="t.act" />
      <ChoiceField v-model="round" class="wide" filterable :choices="roundChoices" :label="t.round" />
      <label class="day" for="journal-from">{{ t.from }}</label><DateField id="journal-from" v-model="from" />
      <label class="day" for="journal-to">{{ t.to }}</label><DateField id="journal-to" v-model="to" />
    </div>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!page && !problem" />
    <EmptyPart v-if="page && lines.length === 0" :words="narrowed ? t.noneFits : t.none" />
    <table v-if="lines.length > 0" class="plain">
      <thead><tr><th scope="col">{{ t.when }}</th><th scope="col">{{ t.act }}</th><th scope="col">{{ t.where }}</th><th scope="col">{{ t.why }}</th><th scope="col"><span class="hidden-text">{{ t.undo }}</span></th></tr></thead>
      <tbody>
        <tr v-for="line in lines" :key="line.id" :class="{ undone: line.undone }">
          <td class="when">{{ dayAndTime(line.at) }}</td>
          <td>{{ t.acts[line.act] }}<p v-if="line.undone" class="quiet">{{ t.undone }}</p></td>
          <td class="mono path"><span v-if="line.from" class="from">{{ line.from }}</span><span v-if="line.from" class="quiet" aria-hidden="true"> → </span><span>{{ line.to || t.nowhere }}</span></td>
          <td>{{ line.why }}<p v-if="line.who" class="quiet">{{ line.who }}</p></td>
          <td><ElButton v-if="line.canUndo" size="small" :aria-label="t.undoNamed(t.acts[line.act], line.to)" @click="undo(line)">{{ t.undo }}</ElButton></td>
        </tr>
      </tbody>
    </table>
    <ElButton v-if="more" @click="showOlder">{{ t.more }}</ElButton>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 10px 0;
}
.find {
  width: 260px;
}
.day {
  align-self: center;
}
.tools .date-field {
  width: 160px;
}
.tools .choice-field {
  width: 160px;
}
.tools .wide {
  width: 240px;
}
.when {
  white-space: nowrap;
}
.path {
  overflow-wrap: anywhere;
  font-size: 14px;
}
td {
  vertical-align: top;
}
.undone .path {
  text-decoration: line-through;
}
</style>
