<script setup lang="ts">
import { ref } from 'vue'
import { desk } from '../../../api/desk'
import OakMark from '../../../shared/OakMark.vue'
import { text } from '../../../text/desk'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** A password is forgotten. What is said is the same whether there is such an account or not. */
const t = text.team
const email = ref('')
const sent = ref('')
const { problem, busy, submit } = useSubmit(async () => {
  await desk.askForReset(email.value)
  sent.value = email.value
})
</script>

<template>
  <div class="alone">
    <OakMark :size="64" />
    <h1>{{ t.forgotten }}</h1>
    <p v-if="sent" role="status">{{ t.forgottenSent(sent) }}</p>
    <form v-else novalidate @submit.prevent="submit">
      <p class="quiet">{{ t.forgottenIntro }}</p>
      <FieldBox id="forgotten-email" v-slot="{ attrs }" :label="text.signin.email" :error="problem ? `${problem.title}. ${problem.detail}` : ''"><ElInput v-bind="attrs" v-model="email" type="email" autocomplete="username" /></FieldBox>
      <ElButton type="primary" native-type="submit" :loading="busy" :disabled="!email.trim()">{{ t.forgottenButton }}</ElButton>
    </form>
    <p><RouterLink to="/sign-in">{{ t.backToSignIn }}</RouterLink></p>
  </div>
</template>
