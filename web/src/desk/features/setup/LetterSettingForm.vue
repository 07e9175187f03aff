<script setup lang="ts">
import { reactive, watch } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'
import { say } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** What all letters of the office have in common. */
const t = text.post
const { value: kept, load } = useRead(['letter-settings'], desk.letterSettings)
const form = reactive({ signature: '', replyTo: '', calendar: false })

watch(kept, (now) => now && Object.assign(form, { signature: now.signature, replyTo: now.replyTo, calendar: now.calendar }), { immediate: true })

const { problem, busy, submit } = useSubmit(async () => {
  await desk.changeLetterSettings({ ...form, version: kept.value!.version })
  say(t.commonKept)
  await load()
})
</script>

<template>
  <form v-if="kept" novalidate @submit.prevent="submit">
    <FieldBox id="letter-signature" v-slot="{ attrs }" :label="t.signature" :hint="t.signatureHint" :error="problem?.at('signature')"><ElInput v-bind="attrs" v-model="form.signature" type="textarea" :rows="3" /></FieldBox>
    <FieldBox id="letter-reply" v-slot="{ attrs }" :label="t.replyTo" :hint="t.replyToHint" :error="problem?.at('replyTo')"><ElInput v-bind="attrs" v-model="form.replyTo" type="email" /></FieldBox>
    <ElCheckbox v-model="form.calendar">{{ t.calendar }}</ElCheckbox>
    <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
    <ElButton native-type="submit" :loading="busy">{{ t.keepCommon }}</ElButton>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 4px;
  max-width: 640px;
  justify-items: start;
}
form > :deep(.field) {
  width: 100%;
}
</style>
