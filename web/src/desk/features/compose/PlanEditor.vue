<script setup lang="ts">
import { computed } from 'vue'
import { limits } from '../../../api/limits'
import type { RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import TimeField from '../../fields/TimeField.vue'
import { choices } from '../../fields/choices'
import FieldBox from './FieldBox.vue'
import FoldedSentence from './FoldedSentence.vue'
import KeptPlans from './KeptPlans.vue'
import { planWords } from './plan-words'
import { usualPlan } from './use-sheet'

/** When those who still owe are written to. */
const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.post
const MOST_STEPS = limits.SheetLetters.steps.most
const faulty = computed(() => ['letters.steps', 'letters.repeatTimes', 'letters.repeatEvery'].some((field) => props.errorAt(field)) || props.sheet.letters.steps.some((_, n) => props.errorAt(`letters.steps[${n}].days`) || props.errorAt(`letters.steps[${n}].at`)))
const sides = [
  { value: 'before', label: t.before },
  { value: 'after', label: t.after },
]

function suggest() {
  Object.assign(props.sheet.letters, usualPlan())
}

function setDays(n: number, days: number, after: boolean) {
  props.sheet.letters.steps[n]!.days = (after ? 1 : -1) * Math.abs(days || 0)
}

/** On the day itself there is no before or after; it counts as before. */
const isAfter = (n: number) => props.sheet.letters.steps[n]!.days > 0
</script>

<template>
  <FoldedSentence class="plan-sentence" :sentence="planWords(sheet.letters)" :change="t.changePlan" :faulty="faulty">
  <fieldset class="plan">
    <legend>{{ t.plan }}</legend>
    <p class="quiet">{{ t.planHelp }}</p>
    <p v-if="sheet.letters.steps.length === 0">{{ t.noSteps }}</p>
    <div v-for="(step, n) in sheet.letters.steps" :key="n" class="step" role="group" :aria-label="t.step(n + 1)">
      <ElInput
        class="days"
        type="number"
        min="0"
        :max="limits.SheetStep.days.most"
        :model-value="Math.abs(step.days)"
        :aria-label="t.days"
        :aria-invalid="!!errorAt(`letters.steps[${n}].days`)"
        :aria-describedby="`step-${n}-error`"
        @update:model-value="(days) => setDays(n, Number(days), isAfter(n))"
      />
      <ChoiceField v-model="step.unit" class="unit" :label="t.unit" :choices="choices<string>(t.units)" />
      <ChoiceField :model-value="isAfter(n) ? 'after' : 'before'" class="side" :label="t.side" :choices="sides" @update:model-value="(side) => setDays(n, step.days || 1, side === 'after')" />
      <label :for="`step-${n}-at`">{{ t.at }}</label>
      <TimeField :id="`step-${n}-at`" v-model="step.at" :aria-invalid="!!errorAt(`letters.steps[${n}].at`)" :aria-describedby="`step-${n}-error`" />
      <ElTooltip :content="t.lastCallHint" :show-after="300"><ElCheckbox v-model="step.lastCall">{{ t.lastCall }}</ElCheckbox></ElTooltip>
      <ElButton type="primary" link size="small" :aria-label="t.removeStep(n + 1)" @click="sheet.letters.steps.splice(n, 1)">✕</ElButton>
      <p :id="`step-${n}-error`" class="error" role="alert">{{ errorAt(`letters.steps[${n}].days`) || errorAt(`letters.steps[${n}].at`) }}</p>
    </div>
    <p class="error" role="alert">{{ errorAt('letters.steps') }}</p>
    <div class="buttons">
      <ElButton v-if="sheet.letters.steps.length === 0" size="small" @click="suggest">{{ t.suggest }}</ElButton>
      <ElButton v-if="sheet.letters.steps.length < MOST_STEPS" size="small" @click="sheet.letters.steps.push({ days: -1, unit: 'WORKING', at: '09:00', lastCall: false })">{{ t.addStep }}</ElButton>
    </div>
    <div v-if="sheet.letters.steps.length > 0" class="more">
      <FieldBox id="repeat-times" v-slot="{ attrs }" :label="t.repeat" :hint="t.repeatTimes" :error="errorAt('letters.repeatTimes')">
        <ElInput v-bind="attrs" v-model.number="sheet.letters.repeatTimes" type="number" min="0" :max="limits.SheetLetters.repeatTimes.most" />
      </FieldBox>
      <FieldBox v-if="sheet.letters.repeatTimes > 0" id="repeat-every" v-slot="{ attrs }" :label="t.repeatEvery" :error="errorAt('letters.repeatEvery')">
        <ElInput v-bind="attrs" v-model.number="sheet.letters.repeatEvery" type="number" min="1" :max="limits.SheetLetters.repeatEvery.most" />
      </FieldBox>
      <FieldBox id="shift" v-slot="{ attrs }" :label="t.shift">
        <ChoiceField v-bind="attrs" v-model="sheet.letters.shift" :choices="choices<string>(t.shifts)" />
      </FieldBox>
    </div>
    <KeptPlans :letters="sheet.letters" />
    <ElCheckbox v-model="sheet.letters.tellReceived">{{ t.tellReceived }}</ElCheckbox>
    <ElCheckbox v-model="sheet.letters.thank">{{ t.thank }}</ElCheckbox>
    <ElCheckbox v-model="sheet.letters.tellReturned">{{ t.tellReturned }}</ElCheckbox>
    <ElCheckbox v-model="sheet.letters.tellExtended">{{ t.tellExtended }}</ElCheckbox>
  </fieldset>
  </FoldedSentence>
</template>

<style scoped>
.plan {
  margin: 0 0 12px;
  padding: 12px 0 0;
  border: 0;
  border-top: 1px solid var(--line);
}
legend {
  float: left;
  width: 100%;
  padding: 0;
  font-weight: 600;
}
legend + * {
  clear: both;
}
.step {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
}
.step .days {
  width: 84px;
}
.step .unit {
  width: 190px;
}
.step .side {
  width: 190px;
}
.step .time-field {
  width: 120px;
}
.step .error {
  flex-basis: 100%;
}
.buttons {
  display: flex;
  gap: 8px;
  margin: 8px 0 12px;
}
.more {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0 18px;
  align-items: start;
}
</style>
