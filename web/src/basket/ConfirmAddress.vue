<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from 'vue'
import { light } from '../api/light'
import type { ApiProblem } from '../api/problem'
import { text } from '../text/sender'

/** A code by mail, which shows that the sender reads the mailbox they named. */
const props = defineProps<{ headers: Record<string, string>; address: string }>()
const emit = defineEmits<{ confirmed: [] }>()
const phase = ref<'offered' | 'typing' | 'confirmed'>('offered')
const code = ref('')
const problem = ref('')
const busy = ref(false)
const field = useTemplateRef('field')

async function attempt(work: () => Promise<void>) {
  busy.value = true
  problem.value = ''
  try {
    await work()
  } catch (error) {
    const refusal = error as ApiProblem
    problem.value = refusal.status === 0 ? text.unreachable : refusal.at('code') || refusal.detail
  } finally {
    busy.value = false
  }
}

const mail = () =>
  attempt(async () => {
    await light('post', '/api/basket/submissions/code', { headers: props.headers })
    phase.value = 'typing'
    code.value = ''
    await nextTick()
    field.value?.focus()
  })

const confirm = () =>
  attempt(async () => {
    await light('put', '/api/basket/submissions/code', { body: { code: code.value }, headers: props.headers })
    phase.value = 'confirmed'
    emit('confirmed')
  })
</script>

<template>
  <section class="confirm" aria-labelledby="confirm-title">
    <h2 id="confirm-title">{{ text.confirmTitle }}</h2>
    <p v-if="phase === 'confirmed'" role="status">✓ {{ text.confirmed }}</p>
    <template v-else>
      <p>{{ phase === 'offered' ? text.confirmWhy : text.confirmSent(address) }}</p>
      <form v-if="phase === 'typing'" novalidate @submit.prevent="confirm">
        <label for="confirm-code">{{ text.confirmCode }}</label>
        <input id="confirm-code" ref="field" v-model="code" class="input" dir="ltr" inputmode="numeric" autocomplete="one-time-code" maxlength="9" :aria-invalid="!!problem" aria-describedby="confirm-error" />
        <button class="button primary" type="submit" :disabled="busy">{{ text.confirmGo }}</button>
      </form>
      <p id="confirm-error" class="error" role="alert">{{ problem }}</p>
      <p><button class="button" type="button" :disabled="busy" @click="mail">{{ phase === 'offered' ? text.confirmSend : text.confirmAgain }}</button></p>
    </template>
  </section>
</template>

<style scoped>
.confirm {
  display: grid;
  gap: 8px;
  padding: 12px 16px;
  border: 1px solid var(--line);
  border-radius: var(--corner);
  background: var(--card);
}
h2 {
  font-size: 18px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
form .input {
  width: 9em;
}
</style>
