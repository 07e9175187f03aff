<script setup lang="ts">
import { ref } from 'vue'
import type { ApiProblem } from '../api/problem'
import OakMark from '../shared/OakMark.vue'

const props = defineProps<{ unlock: (passcode: string) => Promise<void>; text: Readonly<Record<'passcodeTitle' | 'passcode' | 'passcodeNote' | 'enter' | 'unreachable', string>> }>()
const passcode = ref('')
const error = ref('')

async function submit() {
  try {
    await props.unlock(passcode.value)
  } catch (problem) {
    const refusal = problem as ApiProblem
    error.value = refusal.status === 0 ? props.text.unreachable : refusal.at('passcode') || refusal.detail
  }
}
</script>

<template>
  <form class="passcode" novalidate @submit.prevent="submit">
    <OakMark :size="44" />
    <h1>{{ text.passcodeTitle }}</h1>
    <label for="passcode">{{ text.passcode }}</label>
    <!-- eslint-disable-next-line vuejs-accessibility/no-autofocus -- the page holds this one field -->
    <input id="passcode" v-model="passcode" class="input" autocomplete="off" autofocus :aria-invalid="!!error" aria-describedby="passcode-error passcode-note" />
    <p id="passcode-note" class="quiet">{{ text.passcodeNote }}</p>
    <p id="passcode-error" class="error" role="alert">{{ error }}</p>
    <button class="button primary" type="submit">{{ text.enter }}</button>
  </form>
</template>

<style scoped>
.passcode {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding-top: 10vh;
}
</style>
