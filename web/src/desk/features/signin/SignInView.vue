<script setup lang="ts">
import { computed, nextTick, reactive, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import OakMark from '../../../shared/OakMark.vue'
import { session } from '../../use-session'
import { givePasskey, passkeysHere } from '../../passkeys'
import { useSubmit } from '../../use-submit'

const t = text.signin
const code = useTemplateRef<{ focus: () => void }>('code')
const route = useRoute()
const router = useRouter()
const first = computed(() => session.value?.setUpNeeded ?? false)
const form = reactive({ code: '', name: '', email: '', password: '' })
/** Whether the password was right and a code is asked for too. */
const second = ref(false)
const digits = ref('')
const fields = computed(() => (first.value ? (['code', 'name', 'email', 'password'] as const) : (['email', 'password'] as const)))

const { problem, busy, submit } = useSubmit(async () => {
  try {
    session.value = first.value ? await desk.firstAccount({ ...form }) : await desk.signIn(form.email, form.password, digits.value)
  } catch (error) {
    if ((error as ApiProblem).code !== 'second-factor-needed') throw error
    second.value = true
    await nextTick()
    code.value?.focus()
    return
  }
  await enter()
})

async function enter() {
  const to = String(route.query.to ?? '/')
  await router.push(to.startsWith('/') && !to.startsWith('//') ? to : '/')
  // The button that had the keyboard is gone: as after any new page, the keyboard begins at the top, not behind a long list.
  document.getElementById('top')?.focus()
}

const { problem: passkeyProblem, busy: asking, submit: withPasskey } = useSubmit(async () => {
  const offer = await desk.offerPasskeySignIn()
  const answer = await givePasskey(offer.options)
  nothing.value = answer === undefined
  if (answer === undefined) return
  session.value = await desk.passkeySignIn(offer.offer, answer)
  await enter()
})
/** Whether no device gave a passkey, because there is none or somebody thought better of it. */
const nothing = ref(false)
</script>

<template>
  <form class="signin" novalidate @submit.prevent="submit">
    <OakMark :size="64" />
    <h1>{{ first ? t.firstTitle : t.title }}</h1>
    <p v-if="first" class="quiet">{{ t.firstNote }}</p>
    <div v-for="field in fields" :key="field" class="field">
      <label :for="field">{{ t[field] }}</label>
      <ElInput
        :id="field"
        v-model="form[field]"
        :type="field === 'password' ? 'password' : field === 'email' ? 'email' : 'text'"
        :autocomplete="field === 'password' ? (first ? 'new-password' : 'current-password') : field === 'email' ? 'username' : field === 'name' ? 'name' : 'off'"
        :aria-invalid="!!problem?.at(field)"
        :aria-describedby="`${field}-error`" />
      <p :id="`${field}-error`" class="error" role="alert">{{ problem?.at(field) }}</p>
    </div>
    <div v-if="second" class="field">
      <label for="second-code">{{ text.team.code }}</label>
      <ElInput id="second-code" ref="code" v-model="digits" inputmode="numeric" autocomplete="one-time-code" aria-describedby="second-hint" />
      <p id="second-hint" class="quiet">{{ text.team.codeHint }}</p>
    </div>
    <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
    <ElButton type="primary" native-type="submit" :disabled="busy">{{ first ? t.firstButton : t.button }}</ElButton>
    <template v-if="!first && passkeysHere()">
      <ElButton :disabled="asking" @click="withPasskey">{{ text.team.passkeySignIn }}</ElButton>
      <p v-if="passkeyProblem || nothing" class="error" role="alert">{{ passkeyProblem ? `${passkeyProblem.title}. ${passkeyProblem.detail}` : text.team.passkeyNothing }}</p>
    </template>
    <p v-if="!first"><RouterLink to="/forgotten">{{ text.team.forgotten }}</RouterLink></p>
    <p v-if="!first" class="quiet">{{ t.note }}</p>
  </form>
</template>

<style scoped>
.signin {
  display: grid;
  gap: 6px;
  max-width: 420px;
  margin: 9vh auto 0;
  padding: 0 16px;
}
h1 {
  margin: 8px 0 10px;
  font-size: 26px;
}
.field {
  margin-bottom: 4px;
}
.el-button {
  justify-self: start;
  margin: 4px 0 14px;
}
</style>
