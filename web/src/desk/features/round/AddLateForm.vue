<script setup lang="ts">
import { ref } from 'vue'
import { desk, type Contact } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import PeopleField from '../../PeopleField.vue'
import { useActs } from './use-acts'

/** Asks more people in a round that gathers already. */
const props = defineProps<{ roundId: number }>()
const emit = defineEmits<{ done: [] }>()
const t = text.acts
const { addLate } = useActs(props.roundId)
const people = ref<{ name: string; email: string }[]>([])
const groups = ref<string[]>([])
const typed = ref('')
const refused = ref<string[]>([])
const problem = ref<ApiProblem>()

function take(contact: Contact) {
  if (!people.value.some((one) => one.email === contact.email)) people.value.push({ name: contact.name, email: contact.email })
}

async function add() {
  problem.value = undefined
  try {
    if (typed.value.trim()) {
      const read = await desk.readPeople(typed.value)
      people.value.push(...read.people)
      typed.value = read.refused.map((line) => line.text).join('\n')
      refused.value = read.refused.map((line) => line.reason)
      if (read.refused.length > 0) return
    }
    await addLate(people.value, groups.value)
    emit('done')
  } catch (error) {
    problem.value = error as ApiProblem
  }
}
</script>

<template>
  <form class="late" novalidate @submit.prevent="add" @keydown.esc="emit('done')">
    <h2>{{ t.addLate }}</h2>
    <div class="two">
      <div>
        <label for="late-find">{{ text.people.find }}</label>
        <PeopleField id="late-find" :label="text.people.find" groups @contact="take" @group="(name) => !groups.includes(name) && groups.push(name)" />
      </div>
      <div>
        <label for="late-typed">{{ text.compose.pasteLabel }}</label>
        <ElInput id="late-typed" v-model="typed" :rows="2" spellcheck="false" :aria-invalid="refused.length > 0" type="textarea" />
        <p v-for="reason in refused" :key="reason" class="error" role="alert">{{ reason }}</p>
      </div>
    </div>
    <ul v-if="people.length + groups.length > 0">
      <li v-for="(group, n) in groups" :key="group">{{ text.people.wholeGroup(group) }} <ElButton type="primary" link size="small" :aria-label="text.compose.removePerson(group)" @click="groups.splice(n, 1)">✕</ElButton></li>
      <li v-for="(person, n) in people" :key="person.email">
        {{ person.name }} <span class="quiet">{{ person.email }}</span>
        <ElButton type="primary" link size="small" :aria-label="text.compose.removePerson(person.name)" @click="people.splice(n, 1)">✕</ElButton>
      </li>
    </ul>
    <p v-if="problem" class="error" role="alert">{{ problem.errors[0]?.detail ?? problem.detail }}</p>
    <div class="actions">
      <ElButton type="primary" size="small" native-type="submit" :disabled="people.length + groups.length === 0 && !typed.trim()">{{ t.addThem }}</ElButton>
      <ElButton size="small" @click="emit('done')">{{ text.round.cancel }}</ElButton>
    </div>
  </form>
</template>

<style scoped>
.late {
  margin-bottom: 12px;
  padding: 12px 16px;
  border: 1px solid var(--line-strong);
  background: var(--card);
}
h2 {
  margin-bottom: 8px;
  font-size: 18px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
}
label {
  font-weight: 600;
}
ul {
  margin: 8px 0;
  padding: 0;
  list-style: none;
}
.actions {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
</style>
