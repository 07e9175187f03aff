<script setup lang="ts">
import { reactive } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say } from '../../say'
import { session } from '../../use-session'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** The own password. */
const t = text.setup.password
const form = reactive({ present: '', password: '' })

const { problem, busy, submit } = useSubmit(async () => {
  await desk.changePassword(form.present, form.password)
  Object.assign(form, { present: '', password: '' })
  say(t.changed)
})
</script>

<template>
  <section aria-labelledby="own-password">
    <h2 id="own-password">{{ t.title }}</h2>
    <form novalidate @submit.prevent="submit">
      <input class="hidden-text" type="email" autocomplete="username" :value="session?.email" tabindex="-1" aria-hidden="true" readonly />
      <FieldBox id="password-present" v-slot="{ attrs }" :label="t.present" :error="problem?.at('present')"><ElInput v-bind="attrs" v-model="form.present" type="password" autocomplete="current-password" /></FieldBox>
      <FieldBox id="password-next" v-slot="{ attrs }" :label="t.next" :error="problem?.at('password')" :hint="t.hint"><ElInput v-bind="attrs" v-model="form.password" type="password" autocomplete="new-password" /></FieldBox>
      <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
      <ElButton native-type="submit" :disabled="busy">{{ t.save }}</ElButton>
    </form>
  </section>
</template>

<style scoped>
form {
  max-width: 420px;
}
</style>
