<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk } from '../../../api/desk'
import OakMark from '../../../shared/OakMark.vue'
import { text } from '../../../text/desk'
import { say } from '../../say'
import { session } from '../../use-session'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** A new password by the link of a letter. */
const t = text.team
const token = useRoute().hash.slice(1)
const router = useRouter()
const password = ref('')
const { problem, busy, submit } = useSubmit(async () => {
  await desk.setByReset(token, password.value)
  session.value = undefined
  say(t.newPasswordSet)
  await router.push('/sign-in')
})
</script>

<template>
  <div class="alone">
    <OakMark :size="64" />
    <h1>{{ t.newPassword }}</h1>
    <p v-if="!token" class="error" role="alert">{{ t.noToken }}</p>
    <form v-else novalidate @submit.prevent="submit">
      <FieldBox id="new-password" v-slot="{ attrs }" :label="t.joinPassword" :hint="t.joinHint" :error="problem?.at('password')"><ElInput v-bind="attrs" v-model="password" type="password" autocomplete="new-password" /></FieldBox>
      <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }} <RouterLink to="/forgotten">{{ t.forgotten }}</RouterLink></p>
      <ElButton type="primary" native-type="submit" :loading="busy">{{ t.newPasswordButton }}</ElButton>
    </form>
    <p><RouterLink to="/sign-in">{{ t.backToSignIn }}</RouterLink></p>
  </div>
</template>
