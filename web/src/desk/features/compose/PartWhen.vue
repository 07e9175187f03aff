<script setup lang="ts">
import { computed } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import { writtenDate } from '../../../shared/dates'
import ChoiceField from '../../fields/ChoiceField.vue'
import DateField from '../../fields/DateField.vue'
import TimeField from '../../fields/TimeField.vue'
import { useRead } from '../../queries'
import FieldBox from './FieldBox.vue'
import FoldedSentence from './FoldedSentence.vue'
import PlanEditor from './PlanEditor.vue'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
const { value: known } = useRead(['calendars'], desk.calendars)
const calendars = computed(() => known.value ?? [])
const FOLDED = ['zone', 'warningHours', 'graceHours', 'closingDate', 'closingTime', 'keepUntil', 'calendarId']
const HOURS_OF_A_DAY = 24
/** Kept in hours, thought of in days. */
const warningDays = computed({ get: () => props.sheet.warningHours / HOURS_OF_A_DAY, set: (days) => setWarning(Math.round((days || 0) * HOURS_OF_A_DAY)) })

function setWarning(hours: number) {
  Object.assign(props.sheet, { warningHours: hours })
}

const sentence = computed(() => {
  const { zone, warningHours, graceHours, closingDate, closingTime, keepUntil, calendarId } = props.sheet
  const calendar = calendars.value.find((one) => one.id === calendarId)
  return [
    t.dates.begin(zone),
    warningHours % HOURS_OF_A_DAY === 0 ? t.dates.warning(warningHours / HOURS_OF_A_DAY) : t.dates.warningHours(warningHours),
    calendar ? t.dates.calendar(calendar.name) : '',
    graceHours > 0 ? t.dates.grace(graceHours) : t.dates.noGrace,
    closingDate ? t.dates.shut([writtenDate(closingDate), closingTime].filter(Boolean).join(', ')) : t.dates.stayOpen,
    keepUntil ? t.dates.keep(writtenDate(keepUntil)) : '',
    t.dates.end,
  ].join('')
})
const zones = [...new Set([props.sheet.zone, 'UTC', ...Intl.supportedValuesOf('timeZone')])].map((zone) => ({ value: zone, label: zone }))
const calendarChoices = computed(() => [{ value: null, label: t.defaultCalendar }, ...calendars.value.map((one) => ({ value: one.id, label: one.name }))])
</script>

<template>
  <div class="two">
    <FieldBox id="deadline-date" v-slot="{ attrs }" :label="t.date" :error="errorAt('deadlineDate')">
      <DateField v-bind="attrs" v-model="sheet.deadlineDate" />
    </FieldBox>
    <FieldBox id="deadline-time" v-slot="{ attrs }" :label="t.time" :error="errorAt('deadlineTime')">
      <TimeField v-bind="attrs" v-model="sheet.deadlineTime" />
    </FieldBox>
  </div>
  <FoldedSentence :sentence="sentence" :change="t.changeDates" :faulty="FOLDED.some((field) => errorAt(field))">
    <FieldBox id="zone" v-slot="{ attrs }" :label="t.zone" :error="errorAt('zone')">
      <ChoiceField v-bind="attrs" v-model="sheet.zone" filterable :choices="zones" />
    </FieldBox>
    <div class="two">
      <FieldBox id="warning" v-slot="{ attrs }" :label="t.warning" :error="errorAt('warningHours')">
        <ElInput v-bind="attrs" v-model.number="warningDays" type="number" min="0" step="0.5" :max="limits.RoundSheet.warningHours.most / HOURS_OF_A_DAY" />
      </FieldBox>
      <FieldBox id="grace" v-slot="{ attrs }" :label="t.grace" :error="errorAt('graceHours')">
        <ElInput v-bind="attrs" v-model.number="sheet.graceHours" type="number" min="0" :max="limits.RoundSheet.graceHours.most" />
      </FieldBox>
    </div>
    <div class="two">
      <FieldBox id="closing-date" v-slot="{ attrs }" :label="t.closingDate" :error="errorAt('closingDate')"><DateField v-bind="attrs" v-model="sheet.closingDate" /></FieldBox>
      <FieldBox id="closing-time" v-slot="{ attrs }" :label="t.closingTime" :error="errorAt('closingTime')"><TimeField v-bind="attrs" v-model="sheet.closingTime" /></FieldBox>
      <FieldBox id="keep-until" v-slot="{ attrs }" :label="t.keepUntil" :error="errorAt('keepUntil')"><DateField v-bind="attrs" v-model="sheet.keepUntil" /></FieldBox>
      <FieldBox v-if="calendars.length > 1" id="calendar" v-slot="{ attrs }" :label="t.calendar" :error="errorAt('calendarId')">
        <ChoiceField v-bind="attrs" v-model="sheet.calendarId" :choices="calendarChoices" />
      </FieldBox>
    </div>
    <p class="quiet clocks">{{ t.clocks }}</p>
  </FoldedSentence>
  <PlanEditor :sheet="sheet" :error-at="errorAt" />
</template>

<style scoped>
.clocks {
  margin-bottom: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  align-items: end;
}
</style>
