<script setup lang="ts">
import { reactive, ref } from 'vue'
import { limits } from '../../../api/limits'
import type { Contact, Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import SuggestField from '../../fields/SuggestField.vue'
import { may } from '../../use-session'
import FieldBox from '../compose/FieldBox.vue'

/** What is known of a contact, to be typed. */
const props = defineProps<{ contact?: Contact; save: (form: Schemas['ContactForm']) => Promise<string[]>; reload: () => Promise<unknown> }>()
const t = text.contacts
const remarks = ref<string[]>([])
const MOST_ZONES = 20
const zones = Intl.supportedValuesOf('timeZone')
const form = reactive({ name: '', email: '', organisation: '', reference: '', language: '', zone: '', notes: '', groups: '' })

const { conflicts, asked, problem, submit, decide } = useBoth(form, {
  kept: () => {
    if (!props.contact) return undefined
    const { name, email, organisation, reference, language, zone, notes, groups } = props.contact
    return { name, email, organisation, reference, language, zone, notes, groups: groups.join('\n') }
  },
  version: () => props.contact?.version,
  reload: props.reload,
  send: async () => {
    remarks.value = await props.save({ ...form, version: props.contact?.version ?? 0, groups: form.groups.split('\n').filter((one) => one.trim()) })
  },
})
const names = { name: t.name, email: t.email, organisation: t.organisation, reference: t.reference, language: t.language, zone: t.zone, notes: t.notes, groups: t.groupsLabel }

function zonesLike(typed: string, show: (zones: { value: string }[]) => void) {
  show(zones.filter((zone) => zone.toLowerCase().includes(typed.trim().toLowerCase().replaceAll(' ', '_'))).slice(0, MOST_ZONES).map((value) => ({ value })))
}

const error = (field: string) => problem.value?.at(field) ?? ''
</script>

<template>
  <BothVersions v-if="asked" :conflicts="conflicts" :names="names" @decide="decide" />
  <form class="card" novalidate @submit.prevent="submit">
    <h2>{{ t.details }}</h2>
    <fieldset class="plain two" :disabled="!may('CHANGE')">
      <FieldBox id="contact-name" v-slot="{ attrs }" :label="t.name" :error="error('name')"><ElInput v-bind="attrs" v-model="form.name" :maxlength="limits.ContactForm.name.longest" /></FieldBox>
      <FieldBox id="contact-email" v-slot="{ attrs }" :label="t.email" :error="error('email')"><ElInput v-bind="attrs" v-model="form.email" :maxlength="limits.ContactForm.email.longest" spellcheck="false" /></FieldBox>
      <FieldBox id="contact-organisation" v-slot="{ attrs }" :label="t.organisation" :error="error('organisation')"><ElInput v-bind="attrs" v-model="form.organisation" :maxlength="limits.ContactForm.organisation.longest" /></FieldBox>
      <FieldBox id="contact-reference" v-slot="{ attrs }" :label="t.reference" :error="error('reference')"><ElInput v-bind="attrs" v-model="form.reference" :maxlength="limits.ContactForm.reference.longest" /></FieldBox>
      <FieldBox id="contact-language" v-slot="{ attrs }" :label="t.language" :error="error('language')" :hint="t.languageHint"><ElInput v-bind="attrs" v-model="form.language" /></FieldBox>
      <FieldBox id="contact-zone" v-slot="{ attrs }" :label="t.zone" :error="error('zone')">
        <SuggestField v-bind="attrs" v-model="form.zone" clearable :fetch-suggestions="zonesLike" :trigger-on-focus="false" />
      </FieldBox>
      <FieldBox id="contact-groups" v-slot="{ attrs }" :label="t.groupsLabel" :error="error('groups')"><ElInput v-bind="attrs" v-model="form.groups" :rows="3" type="textarea" /></FieldBox>
      <FieldBox id="contact-notes" v-slot="{ attrs }" :label="t.notes" :error="error('notes')"><ElInput v-bind="attrs" v-model="form.notes" :rows="3" type="textarea" /></FieldBox>
    </fieldset>
    <p v-for="remark in remarks" :key="remark" class="remark" role="status">{{ remark }}</p>
    <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.detail }}</p>
    <ElButton v-if="may('CHANGE')" type="primary" native-type="submit">{{ t.save }}</ElButton>
  </form>
</template>

<style scoped>
.card {
  padding: 16px 20px;
  border: 1px solid var(--line);
  background: var(--card);
}
h2 {
  margin-bottom: 12px;
  font-size: 19px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 18px;
  align-items: start;
}
.remark {
  margin-bottom: 10px;
  color: var(--acorn-text);
}
</style>
