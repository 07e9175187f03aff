<script setup lang="ts">
import { reactive, watch } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import TimeField from '../../fields/TimeField.vue'
import { useRead } from '../../queries'
import { say } from '../../say'
import { may } from '../../use-session'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** The hours in which this person is not written to, where they are not the office's. */
const props = defineProps<{ contactId: number }>()
const t = text.contacts.quiet
const { value: kept, load } = useRead(['quiet-hours', props.contactId], () => desk.quietHours(props.contactId), { on: (event) => event.type === 'contact' })
const form = reactive({ from: '', to: '' })
watch(kept, (now) => now && Object.assign(form, { from: now.quietFrom ?? '', to: now.quietTo ?? '' }), { immediate: true })

const { problem, busy, submit } = useSubmit(async () => {
  await desk.setQuietHours(props.contactId, form.from, form.to)
  say(form.from ? t.kept : t.office)
  await load()
})
</script>

<template>
  <form v-if="kept" novalidate @submit.prevent="submit">
    <h2>{{ t.title }}</h2>
    <p class="quiet">{{ t.help }}</p>
    <fieldset class="plain pair" :disabled="!may('CHANGE')">
      <FieldBox id="quiet-from" v-slot="{ attrs }" :label="t.from" :error="problem?.at('quietFrom')"><TimeField v-bind="attrs" v-model="form.from" /></FieldBox>
      <FieldBox id="quiet-to" v-slot="{ attrs }" :label="t.to" :error="problem?.at('quietTo')"><TimeField v-bind="attrs" v-model="form.to" /></FieldBox>
    </fieldset>
    <ElButton v-if="may('CHANGE')" size="small" native-type="submit" :loading="busy">{{ t.keep }}</ElButton>
  </form>
</template>

<style scoped>
form {
  margin-top: 18px;
}
h2 {
  font-size: 19px;
}
.pair {
  display: grid;
  grid-template-columns: 140px 140px;
  gap: 12px;
}
</style>
