<script setup lang="ts">
import type { RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import FieldBox from './FieldBox.vue'

/** When those who still owe are written to. */
const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.post
const MOST_STEPS = 8

function suggest() {
  props.sheet.letters.steps.push(
    { days: -5, unit: 'WORKING', at: '09:00' },
    { days: -1, unit: 'WORKING', at: '09:00' },
    { days: 1, unit: 'WORKING', at: '09:00' },
  )
  props.sheet.letters.repeatEvery = 5
  props.sheet.letters.repeatTimes = 3
}

function setDays(n: number, days: number, after: boolean) {
  props.sheet.letters.steps[n]!.days = (after ? 1 : -1) * Math.abs(days || 0)
}

/** On the day itself there is no before or after; it counts as before. */
const isAfter = (n: number) => props.sheet.letters.steps[n]!.days > 0
</script>

<template>
  <fieldset class="plan">
    <legend>{{ t.plan }}</legend>
    <p class="quiet">{{ t.planHelp }}</p>
    <p v-if="sheet.letters.steps.length === 0">{{ t.noSteps }}</p>
    <div v-for="(step, n) in sheet.letters.steps" :key="n" class="step" role="group" :aria-label="t.step(n + 1)">
      <input
        class="input days"
        type="number"
        min="0"
        max="180"
        :value="Math.abs(step.days)"
        :aria-label="t.days"
        :aria-invalid="!!errorAt(`letters.steps[${n}].days`)"
        :aria-describedby="`step-${n}-error`"
        @input="setDays(n, ($event.target as HTMLInputElement).valueAsNumber, isAfter(n))"
      />
      <select v-model="step.unit" class="input" :aria-label="t.unit">
        <option v-for="(words, unit) in t.units" :key="unit" :value="unit">{{ words }}</option>
      </select>
      <select class="input" :aria-label="t.side" :value="isAfter(n) ? 'after' : 'before'" @change="setDays(n, step.days || 1, ($event.target as HTMLSelectElement).value === 'after')">
        <option value="before">{{ t.before }}</option>
        <option value="after">{{ t.after }}</option>
      </select>
      <label :for="`step-${n}-at`">{{ t.at }}</label>
      <input :id="`step-${n}-at`" v-model="step.at" class="input" type="time" :aria-invalid="!!errorAt(`letters.steps[${n}].at`)" :aria-describedby="`step-${n}-error`" />
      <button class="button plain small" type="button" :aria-label="t.removeStep(n + 1)" @click="sheet.letters.steps.splice(n, 1)">✕</button>
      <p :id="`step-${n}-error`" class="error" role="alert">{{ errorAt(`letters.steps[${n}].days`) || errorAt(`letters.steps[${n}].at`) }}</p>
    </div>
    <p class="error" role="alert">{{ errorAt('letters.steps') }}</p>
    <div class="buttons">
      <button v-if="sheet.letters.steps.length === 0" class="button small" type="button" @click="suggest">{{ t.suggest }}</button>
      <button v-if="sheet.letters.steps.length < MOST_STEPS" class="button small" type="button" @click="sheet.letters.steps.push({ days: -1, unit: 'WORKING', at: '09:00' })">{{ t.addStep }}</button>
    </div>
    <div v-if="sheet.letters.steps.length > 0" class="more">
      <FieldBox id="repeat-times" v-slot="{ attrs }" :label="t.repeat" :hint="t.repeatTimes" :error="errorAt('letters.repeatTimes')">
        <input v-bind="attrs" v-model.number="sheet.letters.repeatTimes" class="input" type="number" min="0" max="20" />
      </FieldBox>
      <FieldBox v-if="sheet.letters.repeatTimes > 0" id="repeat-every" v-slot="{ attrs }" :label="t.repeatEvery" :error="errorAt('letters.repeatEvery')">
        <input v-bind="attrs" v-model.number="sheet.letters.repeatEvery" class="input" type="number" min="1" max="60" />
      </FieldBox>
      <FieldBox id="shift" v-slot="{ attrs }" :label="t.shift">
        <select v-bind="attrs" v-model="sheet.letters.shift" class="input">
          <option v-for="(words, shift) in t.shifts" :key="shift" :value="shift">{{ words }}</option>
        </select>
      </FieldBox>
    </div>
    <label class="tick"><input v-model="sheet.letters.tellReturned" type="checkbox" /> {{ t.tellReturned }}</label>
  </fieldset>
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
.step .input {
  width: auto;
}
.step .days {
  width: 76px;
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
.tick {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 40px;
}
</style>
