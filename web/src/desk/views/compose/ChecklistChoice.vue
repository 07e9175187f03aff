<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { desk, type RoundSheet, type Schemas } from '../../../api/desk'
import { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import { say } from '../../say'

/** Takes items from a kept checklist, or keeps this sheet as a checklist or a template. */
const props = defineProps<{ sheet: RoundSheet }>()
const t = text.templates
const templates = ref<Schemas['KeptTemplate'][]>([])
const keeping = ref<'CHECKLIST' | 'ROUND'>()
const name = ref('')
const problem = ref<ApiProblem>()

onMounted(load)

async function load() {
  templates.value = await desk.templates().catch(() => [])
}

function take(event: Event) {
  const select = event.target as HTMLSelectElement
  const kept = templates.value.find((one) => one.id === Number(select.value))
  select.value = ''
  if (!kept) return
  const fresh = JSON.parse(JSON.stringify(kept.sheet.items)) as RoundSheet['items']
  const blank = props.sheet.items.length === 1 && !props.sheet.items[0]!.title
  props.sheet.items.splice(blank ? 0 : props.sheet.items.length, blank ? 1 : 0, ...fresh)
}

async function keep(replace: boolean) {
  try {
    await desk.keepTemplate(keeping.value!, name.value, JSON.parse(JSON.stringify(props.sheet)), replace)
    keeping.value = undefined
    problem.value = undefined
    name.value = ''
    say(t.kept)
    await load()
  } catch (error) {
    problem.value = error as ApiProblem
  }
}
</script>

<template>
  <select v-if="templates.some((one) => one.kind === 'CHECKLIST')" class="input choice" :aria-label="t.useChecklist" @change="take">
    <option value="">{{ t.useChecklist }}</option>
    <option v-for="one in templates.filter((one) => one.kind === 'CHECKLIST')" :key="one.id" :value="one.id">{{ one.name }}</option>
  </select>
  <button class="button plain" type="button" @click="keeping = 'CHECKLIST'">{{ t.keepChecklist }}</button>
  <button class="button plain" type="button" @click="keeping = 'ROUND'">{{ t.keepRound }}</button>
  <div v-if="keeping" class="keep" @keydown.enter.prevent="keep(false)" @keydown.esc="keeping = undefined">
    <label for="template-name">{{ t.name }}</label>
    <input id="template-name" v-model="name" class="input" maxlength="200" :aria-invalid="!!problem" aria-describedby="template-error" />
    <button class="button small" type="button" @click="keep(false)">{{ t.keep }}</button>
    <button v-if="problem?.code === 'template-name-taken'" class="button small" type="button" @click="keep(true)">{{ t.replace }}</button>
    <p id="template-error" class="error" role="alert">{{ problem ? problem.at('name') || problem.detail : '' }}</p>
  </div>
</template>

<style scoped>
.choice {
  width: auto;
}
.keep {
  display: flex;
  flex-basis: 100%;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.keep .input {
  width: 280px;
}
</style>
