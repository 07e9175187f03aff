<script setup lang="ts">
import { onMounted, reactive, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type Schemas } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import OakMark from '../../../shared/OakMark.vue'
import { text } from '../../../text/desk'
import { say } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** Whoever was invited makes their account. The secret stands behind the # of the address, which is never sent with a request for a page. */
const t = text.team
const route = useRoute()
const router = useRouter()
const token = route.hash.slice(1)
const invitation = ref<Schemas['InvitationSeen']>()
const refused = ref<ApiProblem>()
const form = reactive({ name: '', password: '' })

onMounted(async () => {
  if (!token) return
  try {
    invitation.value = await desk.lookAtInvitation(token)
    form.name = invitation.value.name
  } catch (error) {
    refused.value = error as ApiProblem
  }
})

const { problem, busy, submit } = useSubmit(async () => {
  await desk.join({ token, ...form })
  say(t.joined)
  await router.push('/sign-in')
})
</script>

<template>
  <div class="alone">
    <OakMark :size="64" />
    <h1>{{ t.joinTitle }}</h1>
    <p v-if="!token" class="error" role="alert">{{ t.noToken }}</p>
    <p v-if="refused" class="error" role="alert">{{ refused.title }}. {{ refused.detail }}</p>
    <form v-if="invitation" novalidate @submit.prevent="submit">
      <p>{{ t.joinIntro(invitation.office, t.roles[invitation.role].toLowerCase()) }}</p>
      <input class="hidden-text" type="email" autocomplete="username" :value="invitation.email" tabindex="-1" aria-hidden="true" readonly />
      <FieldBox id="join-name" v-slot="{ attrs }" :label="t.joinName" :error="problem?.at('name')"><ElInput v-bind="attrs" v-model="form.name" autocomplete="name" /></FieldBox>
      <FieldBox id="join-password" v-slot="{ attrs }" :label="t.joinPassword" :hint="t.joinHint" :error="problem?.at('password')"><ElInput v-bind="attrs" v-model="form.password" type="password" autocomplete="new-password" /></FieldBox>
      <p v-if="problem && (problem.errors.length === 0 || problem.at('email'))" class="error" role="alert">{{ problem.at('email') || `${problem.title}. ${problem.detail}` }}</p>
      <ElButton type="primary" native-type="submit" :loading="busy">{{ t.joinButton }}</ElButton>
    </form>
    <p><RouterLink to="/sign-in">{{ t.backToSignIn }}</RouterLink></p>
  </div>
</template>
