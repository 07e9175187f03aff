<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type Contact, type RoundSheet, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import PeopleField from '../../PeopleField.vue'
import { say, sayProblem } from '../../say'
import FieldBox from './FieldBox.vue'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
const FIRST = 200
const refused = ref<Schemas['Refused'][]>([])
const shown = computed(() => props.sheet.people.slice(0, FIRST))

/** Good lines become people; bad ones stay in the field with their reasons. */
async function add() {
  try {
    const read = await desk.readPeople(props.sheet.peopleText)
    const known = new Set(props.sheet.people.map((person) => person.email.toLowerCase()))
    const fresh = read.people.filter((person) => !known.has(person.email.toLowerCase()))
    props.sheet.people.push(...fresh)
    props.sheet.peopleText = read.refused.map((line) => line.text).join('\n')
    refused.value = read.refused.map((line, n) => ({ ...line, line: n + 1 }))
    if (fresh.length > 0 || read.merged > 0 || read.people.length > 0) {
      const repeated = read.merged + read.people.length - fresh.length
      say(t.addedPeople(fresh.length) + (repeated ? t.repeated(repeated) : ''))
    }
  } catch (error) {
    sayProblem(error)
  }
}

function take(contact: Contact) {
  if (!props.sheet.people.some((person) => person.email.toLowerCase() === contact.email.toLowerCase())) props.sheet.people.push({ name: contact.name, email: contact.email })
}

function takeGroup(name: string) {
  if (!props.sheet.groups.includes(name)) props.sheet.groups.push(name)
}

function remove(at: number) {
  const [removed] = props.sheet.people.splice(at, 1)
  say(`${t.removed}: ${removed!.name}`, { label: text.panel.undo, run: () => props.sheet.people.splice(at, 0, removed!) })
}
</script>

<template>
  <div class="two">
    <div>
      <FieldBox id="people-find" :label="text.people.find" :error="errorAt('groups')">
        <PeopleField id="people-find" :label="text.people.find" groups @contact="take" @group="takeGroup" />
      </FieldBox>
      <ul class="groups">
        <li v-for="(group, n) in sheet.groups" :key="group">
          {{ t.askGroup(group) }} <ElButton type="primary" link size="small" :aria-label="t.removePerson(group)" @click="sheet.groups.splice(n, 1)">✕</ElButton>
        </li>
      </ul>
    </div>
    <FieldBox id="people-text" v-slot="{ attrs }" :label="t.pasteLabel" :hint="t.pasteHint" :error="errorAt('peopleText') || errorAt('people')">
      <ElInput v-bind="attrs" v-model="sheet.peopleText" autosize spellcheck="false" type="textarea" />
    </FieldBox>
  </div>
  <ul v-if="refused.length > 0 && sheet.peopleText" class="refused" role="alert">
    <li v-for="line in refused" :key="line.line" class="error">{{ t.line(line.line) }}: {{ line.reason }}</li>
  </ul>
  <ElButton :disabled="!sheet.peopleText.trim()" @click="add">{{ t.addPeople }}</ElButton>
  <p v-if="sheet.people.length > 0" class="total">{{ t.people(sheet.people.length) }}</p>
  <ul class="people">
    <li v-for="(person, n) in shown" :key="person.email">
      <span>{{ person.name }}</span> <span class="quiet">{{ person.email }}</span>
      <ElButton type="primary" link size="small" :aria-label="t.removePerson(person.name)" @click="remove(n)">✕</ElButton>
      <p v-if="errorAt(`people[${n}]`)" class="error">{{ errorAt(`people[${n}]`) }}</p>
    </li>
  </ul>
  <p v-if="sheet.people.length > FIRST" class="quiet">{{ text.today.more(sheet.people.length - FIRST) }}</p>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  align-items: start;
}
.groups {
  margin: 0 0 12px;
  padding: 0;
  list-style: none;
}
.refused {
  margin: 0 0 12px;
  padding-left: 20px;
}
.total {
  margin-top: 14px;
  font-weight: 600;
}
.people {
  max-height: 150px;
  margin: 6px 0 14px;
  padding: 0;
  overflow: auto;
  list-style: none;
}
.people li {
  display: grid;
  grid-template-columns: 1fr 1.2fr auto;
  gap: 10px;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.people .quiet {
  overflow-wrap: anywhere;
}
</style>
