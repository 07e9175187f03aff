<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus/es/components/select/index.mjs'
import 'element-plus/theme-chalk/el-option.css'
import 'element-plus/theme-chalk/el-popper.css'
import 'element-plus/theme-chalk/el-scrollbar.css'
import 'element-plus/theme-chalk/el-select.css'
import { onMounted, ref } from 'vue'
import { desk, type RoundSheet, type WorkCalendar } from '../../../api/desk'
import { text } from '../../../text/desk'
import FieldBox from './FieldBox.vue'
import PlanEditor from './PlanEditor.vue'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
const calendars = ref<WorkCalendar[]>([])
onMounted(async () => (calendars.value = await desk.calendars().catch(() => [])))
const zones = [...new Set([props.sheet.zone, 'UTC', ...Intl.supportedValuesOf('timeZone')])]
</script>

<template>
  <div class="two">
    <FieldBox id="deadline-date" v-slot="{ attrs }" :label="t.date" :error="errorAt('deadlineDate')">
      <input v-bind="attrs" v-model="sheet.deadlineDate" class="input" type="date" />
    </FieldBox>
    <FieldBox id="deadline-time" v-slot="{ attrs }" :label="t.time" :error="errorAt('deadlineTime')">
      <input v-bind="attrs" v-model="sheet.deadlineTime" class="input" type="time" />
    </FieldBox>
  </div>
  <FieldBox id="zone" :label="t.zone" :error="errorAt('zone')">
    <ElSelect id="zone" v-model="sheet.zone" filterable :aria-label="t.zone" size="large">
      <ElOption v-for="zone in zones" :key="zone" :value="zone" :label="zone" />
    </ElSelect>
  </FieldBox>
  <div class="two">
    <FieldBox id="warning" v-slot="{ attrs }" :label="t.warning" :error="errorAt('warningHours')">
      <input v-bind="attrs" v-model.number="sheet.warningHours" class="input" type="number" min="0" max="2160" />
    </FieldBox>
    <FieldBox id="grace" v-slot="{ attrs }" :label="t.grace" :error="errorAt('graceHours')">
      <input v-bind="attrs" v-model.number="sheet.graceHours" class="input" type="number" min="0" max="2160" />
    </FieldBox>
  </div>
  <div class="two">
    <FieldBox id="closing-date" v-slot="{ attrs }" :label="t.closingDate" :error="errorAt('closingDate')"><input v-bind="attrs" v-model="sheet.closingDate" class="input" type="date" /></FieldBox>
    <FieldBox id="closing-time" v-slot="{ attrs }" :label="t.closingTime" :error="errorAt('closingTime')"><input v-bind="attrs" v-model="sheet.closingTime" class="input" type="time" /></FieldBox>
    <FieldBox id="keep-until" v-slot="{ attrs }" :label="t.keepUntil" :error="errorAt('keepUntil')"><input v-bind="attrs" v-model="sheet.keepUntil" class="input" type="date" /></FieldBox>
    <FieldBox v-if="calendars.length > 1" id="calendar" v-slot="{ attrs }" :label="t.calendar" :error="errorAt('calendarId')">
      <select v-bind="attrs" v-model="sheet.calendarId" class="input">
        <option :value="null">{{ t.defaultCalendar }}</option>
        <option v-for="one in calendars" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
    </FieldBox>
  </div>
  <p class="quiet clocks">{{ t.clocks }}</p>
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
