<script setup lang="ts">
import { limits } from '../../../api/limits'
import { text } from '../../../text/desk'
import DateField from '../../fields/DateField.vue'
import TimeField from '../../fields/TimeField.vue'
import { OFFERED_DAYS } from '../links/renewals'

/** For how many days, or until when, something works. */
export interface WindowForm {
  ends: 'days' | 'until'
  days: number | undefined
  endsOn: string
  endsAt: string
}
const form = defineModel<WindowForm>({ required: true })
defineProps<{ id: string; label: string; error: string; wrongDays: boolean }>()
const t = text.parcels
const most = limits.ParcelSheet.days
</script>

<template>
  <ElRadioGroup v-model="form.ends" :aria-label="label">
    <ElRadio value="days">{{ t.window.days }}</ElRadio>
    <ElRadio value="until">{{ t.window.until }}</ElRadio>
  </ElRadioGroup>
  <div class="row">
    <template v-if="form.ends === 'days'">
      <ElInputNumber v-model="form.days" class="days" :min="most.least" :max="most.most" :controls="false" :aria-label="t.days" :aria-invalid="wrongDays" :aria-describedby="`${id}-ends-error`" />
      <ElButton v-for="days in OFFERED_DAYS" :key="days" size="small" :aria-pressed="form.days === days" @click="form.days = days">{{ t.day(days) }}</ElButton>
    </template>
    <template v-else>
      <DateField v-model="form.endsOn" :label="t.endsOn" :aria-invalid="!!error" :aria-describedby="`${id}-ends-error`" />
      <span>{{ t.endsAt }}</span>
      <TimeField v-model="form.endsAt" class="time" :label="t.endsAt" />
    </template>
  </div>
  <p :id="`${id}-ends-error`" class="error" role="alert">{{ error }}</p>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.days {
  width: 76px;
}
.time {
  width: 110px;
}
</style>
