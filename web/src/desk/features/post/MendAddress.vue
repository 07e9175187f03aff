<script setup lang="ts">
import { ref } from 'vue'
import { desk, type ListedLetter } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useSubmit } from '../../use-submit'
import { refusalWords } from './letter-words'
import FieldBox from '../compose/FieldBox.vue'

/** Mends an address that takes no letters, and has the letter go again from the same place. */
const props = defineProps<{ letter: ListedLetter }>()
const emit = defineEmits<{ mended: [] }>()
const t = text.post
const email = ref(props.letter.address)

const { problem, busy, submit } = useSubmit(async () => {
  const { contact } = await desk.person(props.letter.contactId)
  if (contact.email !== email.value.trim()) await desk.changeContact(contact.id, { ...contact, email: email.value.trim() })
  await desk.letterAgain(props.letter.id)
  emit('mended')
})
</script>

<template>
  <form novalidate @submit.prevent="submit">
    <p v-if="refusalWords(letter.trouble)"><strong>{{ refusalWords(letter.trouble) }}</strong></p>
    <p>{{ t.undeliveredHelp }}</p>
    <FieldBox id="mend-address" v-slot="{ attrs }" :label="t.newAddress" :error="problem?.at('email') || (problem && problem.errors.length === 0 ? `${problem.title}. ${problem.detail}` : '')">
      <ElInput v-bind="attrs" v-model="email" type="email" />
    </FieldBox>
    <ElButton type="primary" native-type="submit" :loading="busy">{{ t.mended }}</ElButton>
  </form>
</template>

<style scoped>
form {
  margin: 10px 0;
  padding: 10px 14px;
  border-left: 4px solid var(--rowan);
}
.el-button {
  margin-top: 6px;
}
</style>
