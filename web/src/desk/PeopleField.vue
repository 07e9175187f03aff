<script setup lang="ts">
import { ElAutocomplete } from 'element-plus/es/components/autocomplete/index.mjs'
import 'element-plus/theme-chalk/el-autocomplete.css'
import 'element-plus/theme-chalk/el-input.css'
import 'element-plus/theme-chalk/el-popper.css'
import 'element-plus/theme-chalk/el-scrollbar.css'
import { ref } from 'vue'
import { desk, type Contact } from '../api/desk'
import { text } from '../text/desk'

/** A field in which contacts, and groups where they fit, are found by a few letters. */
const props = defineProps<{ id: string; label: string; groups?: boolean; describedBy?: string }>()
const emit = defineEmits<{ contact: [contact: Contact]; group: [name: string] }>()

interface Choice {
  value: string
  detail: string
  contact?: Contact
  group?: string
}

const typed = ref('')

async function suggest(find: string, show: (choices: Choice[]) => void) {
  if (!find.trim()) return show([])
  try {
    const found = await desk.suggest(find)
    show([
      ...(props.groups ? found.groups.map((group) => ({ value: group.name, detail: text.people.group(group.size), group: group.name })) : []),
      ...found.contacts.map((contact) => ({ value: contact.name, detail: [contact.email, contact.organisation].filter(Boolean).join(', '), contact })),
    ])
  } catch {
    show([])
  }
}

function pick(choice: Choice) {
  typed.value = ''
  if (choice.contact) emit('contact', choice.contact)
  else if (choice.group) emit('group', choice.group)
}
</script>

<template>
  <ElAutocomplete
    :id="id"
    v-model="typed"
    class="people-field"
    :fetch-suggestions="(find: string, show: any) => suggest(find, show)"
    :trigger-on-focus="false"
    :debounce="200"
    :aria-label="label"
    :placeholder="text.people.placeholder"
    highlight-first-item
    @select="(choice: any) => pick(choice)"
  >
    <template #default="{ item }">
      <span>{{ (item as Choice).value }}</span> <span class="quiet">{{ (item as Choice).detail }}</span>
    </template>
  </ElAutocomplete>
</template>

<style>
.people-field {
  width: 100%;
}
.people-field .el-input__wrapper {
  min-height: 40px;
}
.people-field .el-input__inner {
  font: 16px var(--text);
}
</style>
