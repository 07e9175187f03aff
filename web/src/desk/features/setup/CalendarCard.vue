<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type Schemas, type WorkCalendar } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import ChoiceField from '../../fields/ChoiceField.vue'
import DateField from '../../fields/DateField.vue'
import FileButton from '../../fields/FileButton.vue'
import FoldedPart from '../../fields/FoldedPart.vue'
import AskOnce from '../../AskOnce.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { may } from '../../use-session'
import FieldBox from '../compose/FieldBox.vue'

/** One calendar: weekend, public holidays, own closing days. */
const props = defineProps<{ calendar: WorkCalendar; countries: { code: string; name: string }[]; reload: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.setup
const year = new Date().getFullYear()
const form = reactive({ name: '', weekend: [] as string[], country: '', region: '' })
const { value: knownRegions } = useRead(computed(() => ['regions', form.country]), () => (form.country ? desk.regions(form.country) : Promise.resolve([])))
const { value: knownHolidays } = useRead(computed(() => ['holidays', form.country, form.region]), () => (form.country ? desk.holidays(form.country, form.region, year) : Promise.resolve([])))
const regions = computed(() => knownRegions.value ?? [])
const holidays = computed(() => knownHolidays.value ?? [])
const day = ref('')
const why = ref('')
const dayProblem = ref<ApiProblem>()
const id = (part: string) => `calendar-${props.calendar.id}-${part}`
const dayWords = (date: string) => new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(new Date(`${date}T12:00:00Z`))

const { conflicts, asked, problem, submit, decide } = useBoth(form, {
  kept: () => {
    const { name, weekend, country, region } = props.calendar
    return { name, weekend: weekend as string[], country, region }
  },
  version: () => props.calendar.version,
  reload: props.reload,
  send: () => desk.changeCalendar(props.calendar.id, { version: props.calendar.version, ...form } as Schemas['CalendarForm']),
  done: () => {
    say(t.saved)
    emit('changed')
  },
})
const names = { name: t.name, weekend: t.weekend, country: t.country, region: t.region }
watch(() => form.country, (now, before) => {
  if (before && now !== before && now !== props.calendar.country) form.region = ''
})

function toggle(name: string) {
  form.weekend = form.weekend.includes(name) ? form.weekend.filter((one) => one !== name) : [...form.weekend, name]
}

async function save() {
  await submit()
  if (problem.value && problem.value.errors.length === 0) sayProblem(problem.value)
}

async function tryTo(work: () => Promise<unknown>, words?: string, undo?: () => Promise<unknown>) {
  try {
    await work()
    emit('changed')
    if (words) say(words, undo && { label: text.panel.undo, run: () => void tryTo(undo) })
  } catch (error) {
    sayProblem(error)
  }
}

async function addDay() {
  dayProblem.value = undefined
  try {
    const closed = day.value
    await desk.closeDay(props.calendar.id, closed || null, why.value)
    day.value = ''
    why.value = ''
    emit('changed')
    say(t.closed(1), { label: text.panel.undo, run: () => void tryTo(() => desk.reopenDays(props.calendar.id, [closed])) })
  } catch (error) {
    dayProblem.value = error as ApiProblem
  }
}

async function importFile(file: File) {
  try {
    const read = await desk.readCalendar(file)
    const known = new Set(props.calendar.closingDays.map((one) => one.day))
    const fresh = read.days.filter((one) => !known.has(one.day))
    await tryTo(() => desk.closeDays(props.calendar.id, fresh), t.closed(fresh.length) + (read.passedOver ? t.leftOut(read.passedOver) : ''), fresh.length ? () => desk.reopenDays(props.calendar.id, fresh.map((one) => one.day)) : undefined)
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <article>
    <BothVersions v-if="asked" :conflicts="conflicts" :names="names" @decide="decide" />
    <form novalidate @submit.prevent="save">
      <fieldset class="plain three" :disabled="!may('CHANGE')">
        <FieldBox :id="id('name')" v-slot="{ attrs }" :label="t.name" :error="problem?.at('name')"><ElInput v-bind="attrs" v-model="form.name" :maxlength="limits.CalendarForm.name.longest" /></FieldBox>
        <FieldBox :id="id('country')" v-slot="{ attrs }" :label="t.country" :hint="t.holidaysHint" :error="problem?.at('country')">
          <ChoiceField v-bind="attrs" v-model="form.country" filterable :choices="[{ value: '', label: t.noCountry }, ...countries.map((one) => ({ value: one.code, label: one.name }))]" />
        </FieldBox>
        <FieldBox v-if="regions.length" :id="id('region')" v-slot="{ attrs }" :label="t.region" :error="problem?.at('region')">
          <ChoiceField v-bind="attrs" v-model="form.region" filterable :choices="[{ value: '', label: t.noRegion }, ...regions.map((one) => ({ value: one.code, label: one.name }))]" />
        </FieldBox>
      </fieldset>
      <fieldset :disabled="!may('CHANGE')">
        <legend>{{ t.weekend }}</legend>
        <ElCheckbox v-for="(words, name) in t.days" :key="name" :model-value="form.weekend.includes(String(name))" @change="toggle(String(name))">{{ words }}</ElCheckbox>
        <p v-if="problem?.at('weekend')" class="error" role="alert">{{ problem.at('weekend') }}</p>
      </fieldset>
      <div v-if="may('CHANGE')" class="actions">
        <ElButton type="primary" size="small" native-type="submit">{{ t.save }}</ElButton>
        <span v-if="calendar.isDefault" class="quiet">{{ t.isDefault }}</span>
        <ElButton v-else size="small" @click="tryTo(() => desk.defaultCalendar(calendar.id))">{{ t.makeDefault }}</ElButton>
        <AskOnce v-if="!calendar.isDefault" small :label="t.discard" :question="t.confirmDiscard" @sure="tryTo(() => desk.discardCalendar(calendar.id))" />
      </div>
    </form>
    <FoldedPart v-if="holidays.length > 0" :label="`${t.holidays(year)} (${holidays.length})`">
      <ul><li v-for="one in holidays" :key="one.day + one.name"><span class="date">{{ dayWords(one.day) }}</span> {{ one.name }}</li></ul>
    </FoldedPart>
    <h3>{{ t.own }}</h3>
    <p v-if="calendar.closingDays.length === 0" class="quiet">{{ t.noOwn }}</p>
    <ul class="days">
      <li v-for="one in calendar.closingDays" :key="one.day">
        <span class="date">{{ dayWords(one.day) }}</span> {{ one.name }}
        <ElButton v-if="may('CHANGE')" type="primary" link size="small" :aria-label="t.removeDay(dayWords(one.day))" @click="tryTo(() => desk.reopenDays(calendar.id, [one.day]), t.reopened, () => desk.closeDays(calendar.id, [one]))">✕</ElButton>
      </li>
    </ul>
    <form v-if="may('CHANGE')" class="add" novalidate @submit.prevent="addDay">
      <FieldBox :id="id('day')" v-slot="{ attrs }" :label="t.day" :error="dayProblem?.at('day')"><DateField v-bind="attrs" v-model="day" /></FieldBox>
      <FieldBox :id="id('why')" v-slot="{ attrs }" :label="t.why" :error="dayProblem?.at('name')"><ElInput v-bind="attrs" v-model="why" :maxlength="limits.CloseDay.name.longest" /></FieldBox>
      <ElButton size="small" native-type="submit">{{ t.addDay }}</ElButton>
      <FileButton small :label="t.importFile" accept=".ics,text/calendar" @file="importFile" />
    </form>
  </article>
</template>

<style scoped>
article {
  margin: 12px 0;
  padding: 16px 20px;
  border: 1px solid var(--line);
  background: var(--card);
}
.three {
  align-items: start;
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0 18px;
}
fieldset {
  margin: 0 0 10px;
  padding: 0;
  border: 0;
}
legend {
  font-weight: 600;
}
.actions {
  display: flex;
  align-items: center;
  gap: 10px;
}
h3,
.folded-part {
  margin-top: 14px;
}
h3 {
  font-size: 16px;
}
ul {
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
.days {
  max-height: 220px;
  overflow: auto;
}
.date {
  display: inline-block;
  min-width: 150px;
}
.add {
  display: grid;
  grid-template-columns: 170px 1fr auto auto;
  gap: 10px;
  align-items: start;
}
.add .el-button,
.add .file-button {
  margin-top: 32px;
}
</style>
