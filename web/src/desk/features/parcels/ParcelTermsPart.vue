<script setup lang="ts">
import { limits } from '../../../api/limits'
import { text } from '../../../text/desk'
import DateField from '../../fields/DateField.vue'
import FoldedPart from '../../fields/FoldedPart.vue'
import TimeField from '../../fields/TimeField.vue'
import ChoiceField from '../../fields/ChoiceField.vue'
import { choices } from '../../fields/choices'
import FieldBox from '../compose/FieldBox.vue'
import type { ParcelForm } from './parcel-form'
import WindowFields from './WindowFields.vue'

/** Until when and how a parcel can be taken away. */
const form = defineModel<ParcelForm>({ required: true })
defineProps<{ errorAt: (field: string) => string; passcodeSet: boolean }>()
const t = text.parcels
const most = limits.ParcelSheet
</script>

<template>
  <div class="terms">
    <WindowFields id="parcel" v-model="form" :label="t.until" :error="errorAt('days') || errorAt('ends')" :wrong-days="!!errorAt('days')" />

    <fieldset>
      <legend>{{ t.reminders }}</legend>
      <div v-for="(step, n) in form.reminders" :key="n" class="row step" role="group" :aria-label="t.stepOf(n + 1)">
        <ElInputNumber v-model="step.before" class="days" :min="0" :max="-limits.ParcelStep.days.least" :controls="false" :aria-label="t.stepDays" :aria-invalid="!!errorAt(`reminders[${n}]`)" :aria-describedby="`parcel-step-${n}`" />
        <ChoiceField v-model="step.unit" class="unit" :label="t.stepUnit" :choices="choices<string>(t.units)" />
        <span>{{ t.stepAt }}</span>
        <TimeField v-model="step.at" class="time" :label="t.stepAt" />
        <ElButton type="primary" link size="small" :aria-label="t.removeStep(n + 1)" @click="form.reminders.splice(n, 1)">✕</ElButton>
        <p :id="`parcel-step-${n}`" class="error" role="alert">{{ errorAt(`reminders[${n}]`) }}</p>
      </div>
      <ElButton v-if="form.reminders.length < most.reminders.most" size="small" @click="form.reminders.push({ before: form.reminders.length === 0 ? 3 : 1, unit: 'CALENDAR', at: '09:00' })">{{ t.addReminder }}</ElButton>
      <p class="error" role="alert">{{ errorAt('reminders') }}</p>
    </fieldset>

    <FoldedPart :label="t.moreTerms">
      <div class="more">
        <FieldBox id="parcel-begins" :label="t.beginsOn" :error="errorAt('begins')"><template #default="{ attrs }"><DateField v-bind="attrs" v-model="form.beginsOn" /></template></FieldBox>
        <FieldBox id="parcel-passcode" :label="t.passcodeField" :hint="passcodeSet ? t.passcodeKept : t.passcodeHint" :error="errorAt('passcode')">
          <template #default="{ attrs }">
            <ElInput v-bind="attrs" v-model="form.passcode" autocomplete="off" :maxlength="most.passcode.longest" :disabled="form.passcodeAway" />
            <ElCheckbox v-if="passcodeSet" v-model="form.passcodeAway">{{ t.passcodeAway }}</ElCheckbox>
          </template>
        </FieldBox>
        <FieldBox id="parcel-most" :label="`${t.limited} (${t.timesAtMost})`" :error="errorAt('mostPickUps')"><template #default="{ attrs }"><ElInputNumber v-bind="attrs" v-model="form.mostPickUps" :min="most.mostPickUps.least" :max="most.mostPickUps.most" :controls="false" :placeholder="t.unlimited" /></template></FieldBox>
        <FieldBox id="parcel-name" :label="t.readable" :error="errorAt('name')"><template #default="{ attrs }"><ElInput v-bind="attrs" v-model="form.name" :maxlength="most.name.longest" /></template></FieldBox>
        <FieldBox id="parcel-kept" :label="t.kept" :error="errorAt('keptDays')"><template #default="{ attrs }"><ElInputNumber v-bind="attrs" v-model="form.keptDays" :min="most.keptDays.least" :max="most.keptDays.most" :controls="false" /></template></FieldBox>
      </div>
    </FoldedPart>
  </div>
</template>

<style scoped>
.terms {
  display: grid;
  gap: 8px;
}
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
.unit {
  width: 230px;
}
fieldset {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin: 0;
  padding: 0;
  border: 0;
}
legend {
  padding: 0;
  font-weight: 600;
}
.step .error {
  flex-basis: 100%;
}
.more {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 18px;
}
.more .el-input-number {
  width: 100%;
}
</style>
