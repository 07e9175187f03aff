<script setup lang="ts">
import { ref } from 'vue'
import { light } from '../api/light'
import type { ApiProblem } from '../api/problem'
import { language, speak, text } from '../text/sender'
import OakMark from '../shared/OakMark.vue'
import { hashOf } from './hash-of'
import LanguageChoice from '../light/LanguageChoice.vue'

/** Whether a file is the one that a receipt tells of. The file stays where it is: only its hash is asked about. */
const code = ref('')
const file = ref<File>()
const read = ref<number>()
const received = ref<boolean>()
const errors = ref({ code: '', file: '' })

function picked(event: Event) {
  file.value = (event.target as HTMLInputElement).files?.[0]
  received.value = undefined
}

async function check() {
  errors.value = { code: '', file: file.value ? '' : text.nothing }
  received.value = undefined
  if (!file.value) return
  try {
    const sha256 = await hashOf(file.value, (part) => (read.value = Math.floor(part * 100)))
    received.value = (await light('post', '/api/basket/receipt-check', { body: { code: code.value, sha256 }, headers: { 'Accept-Language': language.value } })).received
  } catch (error) {
    const problem = error as ApiProblem
    errors.value = { code: problem.status === 0 ? text.unreachable : (problem.at?.('code') || problem.detail || String(error)), file: '' }
  } finally {
    read.value = undefined
  }
}
</script>

<template>
  <main>
    <div class="top"><OakMark :size="34" /><LanguageChoice :label="text.language" :speak="speak" /></div>
    <h1>{{ text.checkTitle }}</h1>
    <p>{{ text.checkNote }}</p>
    <form novalidate @submit.prevent="check">
      <label for="check-code">{{ text.checkCode }}</label>
      <input id="check-code" v-model="code" class="input mono" dir="ltr" autocomplete="off" spellcheck="false" placeholder="SR2C-BRFB-V91E" maxlength="40" :aria-invalid="!!errors.code" aria-describedby="check-code-error" @input="received = undefined" />
      <p id="check-code-error" class="error" role="alert">{{ errors.code }}</p>
      <span>{{ text.checkFile }}</span>
      <label class="button file">
        <input type="file" class="hidden-text" :aria-label="text.checkChoose" aria-describedby="check-file-error" @change="picked" />
        {{ text.checkChoose }}
      </label>
      <bdi v-if="file" class="mono">{{ file.name }}</bdi>
      <p id="check-file-error" class="error" role="alert">{{ errors.file }}</p>
      <button class="button primary" type="submit" :disabled="read !== undefined">{{ text.check }}</button>
    </form>
    <p v-if="read !== undefined" class="answer quiet">{{ text.checkReading(read) }}</p>
    <p class="answer" role="status" :class="{ yes: received === true, no: received === false }">
      <template v-if="received === true">✓ {{ text.checkYes }}</template>
      <template v-else-if="received === false">{{ text.checkNo }}</template>
    </p>
  </main>
</template>

<style scoped>
main {
  max-width: 640px;
  margin: 0 auto;
  padding: 20px 16px 64px;
}
.top {
  display: flex;
  align-items: center;
  margin-bottom: 12px;
}
h1 {
  margin-bottom: 8px;
  font-size: 26px;
}
form {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-top: 18px;
}
.file {
  position: relative;
}
.file:focus-within {
  outline: 3px solid var(--oak);
  outline-offset: 2px;
}
.answer {
  margin-top: 16px;
}
.yes,
.no {
  padding: 12px 14px;
  border-inline-start: 4px solid var(--moss);
  background: var(--leaf-tint);
}
.no {
  border-color: var(--rowan);
  background: var(--rowan-tint);
}
</style>
