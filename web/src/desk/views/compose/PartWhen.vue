<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus/es/components/select/index.mjs'
import 'element-plus/theme-chalk/el-option.css'
import 'element-plus/theme-chalk/el-popper.css'
import 'element-plus/theme-chalk/el-scrollbar.css'
import 'element-plus/theme-chalk/el-select.css'
import type { RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import FieldBox from './FieldBox.vue'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
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
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  align-items: end;
}
</style>
