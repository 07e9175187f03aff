<script setup lang="ts">
import { ref } from 'vue'
import { desk, type Contact } from '../../../api/desk'
import { text } from '../../../text/desk'
import PeopleField from '../../PeopleField.vue'
import { sayProblem } from '../../say'

/** Who gets a link: contacts and groups found by a few letters, or people written down. */
const people = defineModel<{ name: string; email: string }[]>({ required: true })
defineProps<{ id: string; error?: string }>()
const t = text.parcels
const typed = ref('')
const refused = ref<string[]>([])

function add(more: { name: string | null; email: string | null }[]) {
  const known = new Set(people.value.map((one) => one.email.toLowerCase()))
  const fresh = more.filter((one) => one.email && !known.has(one.email.toLowerCase())).map((one) => ({ name: one.name ?? '', email: one.email! }))
  people.value = [...people.value, ...fresh.filter((one, n) => fresh.findIndex((other) => other.email.toLowerCase() === one.email.toLowerCase()) === n)]
}

async function addGroup(name: string) {
  try {
    add(await desk.parcelGroup(name))
  } catch (error) {
    sayProblem(error)
  }
}

/** Takes what was written down; lines that cannot be read stay, with the reason. */
async function addTyped(): Promise<boolean> {
  if (!typed.value.trim()) return true
  try {
    const read = await desk.readPeople(typed.value)
    add(read.people)
    typed.value = read.refused.map((line) => line.text).join('\n')
    refused.value = read.refused.map((line) => line.reason)
    return read.refused.length === 0
  } catch (error) {
    sayProblem(error)
    return false
  }
}

defineExpose({ addTyped })
</script>

<template>
  <div class="people">
    <div class="two">
      <div>
        <label :for="`${id}-find`">{{ t.people }}</label>
        <PeopleField :id="`${id}-find`" :label="t.people" groups @contact="(contact: Contact) => add([contact])" @group="addGroup" />
      </div>
      <div>
        <label :for="`${id}-typed`">{{ t.paste }}</label>
        <ElInput :id="`${id}-typed`" v-model="typed" type="textarea" :rows="2" spellcheck="false" :aria-invalid="refused.length > 0" :aria-describedby="`${id}-refused`" />
        <div :id="`${id}-refused`"><p v-for="reason in refused" :key="reason" class="error" role="alert">{{ reason }}</p></div>
        <ElButton v-if="typed.trim()" size="small" @click="addTyped">{{ t.addPasted }}</ElButton>
      </div>
    </div>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <ul v-if="people.length > 0">
      <li v-for="(person, n) in people" :key="person.email">
        {{ person.name }} <span class="quiet">{{ person.email }}</span>
        <ElButton type="primary" link size="small" :aria-label="text.compose.removePerson(person.name || person.email)" @click="people = people.filter((_, at) => at !== n)">✕</ElButton>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  max-height: 180px;
  margin: 8px 0 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}
</style>
