<script setup lang="ts">
import { nextTick, reactive, ref, useTemplateRef } from 'vue'
import type { ApiProblem } from '../api/problem'
import { desk } from '../api/desk'
import { text } from '../text/desk'
import { backIn } from './live'
import { session } from './use-session'
import { useSubmit } from './use-submit'

/** Signing in over an open page, which stays as it is beneath. */
const emit = defineEmits<{ done: [] }>()
const t = text.signin
const form = reactive({ email: session.value?.email ?? '', password: '' })
const password = useTemplateRef('password')
const code = useTemplateRef<{ focus: () => void }>('code')
const second = ref(false)
const digits = ref('')

const { problem, busy, submit } = useSubmit(async () => {
  const before = session.value?.email
  try {
    session.value = await desk.signIn(form.email, form.password, digits.value)
  } catch (error) {
    if ((error as ApiProblem).code !== 'second-factor-needed') throw error
    second.value = true
    await nextTick()
    code.value?.focus()
    return
  }
  emit('done')
  // What is on the screen is another person's.
  if (before && before !== session.value.email) location.assign('/')
  else backIn()
})
</script>

<template>
  <ElDialog :model-value="true" :title="t.again" width="420" append-to-body @opened="password?.focus()" @close="emit('done')">
    <form id="sign-in-again" novalidate @submit.prevent="submit">
      <p>{{ t.againNote }}</p>
      <label for="again-email">{{ t.email }}</label>
      <ElInput id="again-email" v-model="form.email" type="email" autocomplete="username" :aria-invalid="!!problem" aria-describedby="again-error" />
      <label for="again-password">{{ t.password }}</label>
      <ElInput id="again-password" ref="password" v-model="form.password" type="password" autocomplete="current-password" :aria-invalid="!!problem" aria-describedby="again-error" />
      <template v-if="second">
        <label for="again-code">{{ text.team.code }}</label>
        <ElInput id="again-code" ref="code" v-model="digits" inputmode="numeric" autocomplete="one-time-code" />
        <p class="quiet">{{ text.team.codeHint }}</p>
      </template>
      <p id="again-error" class="error" role="alert">{{ problem ? `${problem.title}. ${problem.detail}` : '' }}</p>
    </form>
    <template #footer>
      <ElButton @click="emit('done')">{{ t.later }}</ElButton>
      <ElButton type="primary" native-type="submit" form="sign-in-again" :disabled="busy">{{ t.button }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 6px;
}
</style>
