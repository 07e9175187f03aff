<script setup lang="ts">
import { desk, type Contact } from '../api/desk'
import { text } from '../text/desk'
import FindBox from './fields/FindBox.vue'

/** A field in which contacts, and groups where they fit, are found by a few letters. */
const props = defineProps<{ id: string; label: string; placeholder?: string; groups?: boolean }>()
const emit = defineEmits<{ contact: [contact: Contact]; group: [name: string] }>()

interface Choice {
  key: string
  name: string
  detail: string
  contact?: Contact
}

async function find(words: string): Promise<Choice[]> {
  const found = await desk.suggest(words)
  const groups = props.groups ? found.groups.map((group) => ({ key: `group ${group.name}`, name: group.name, detail: text.people.group(group.size) })) : []
  return [...groups, ...found.contacts.map((contact) => ({ key: String(contact.id), name: contact.name, detail: [contact.email, contact.organisation].filter(Boolean).join(', '), contact }))]
}

function pick(choice: Choice) {
  if (choice.contact) emit('contact', choice.contact)
  else emit('group', choice.name)
}
</script>

<template>
  <FindBox :id="id" v-slot="{ choice }" :label="label" :placeholder="placeholder ?? text.people.placeholder" :none="text.people.none" :find="find" @pick="pick">
    {{ choice.name }} <span class="quiet">{{ choice.detail }}</span>
  </FindBox>
</template>
