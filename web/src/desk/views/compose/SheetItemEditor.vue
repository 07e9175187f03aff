<script setup lang="ts">
import { ref } from 'vue'
import { desk, type SheetItem } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import { say } from '../../say'
import FieldBox from './FieldBox.vue'

const props = defineProps<{ item: SheetItem; index: number; last: boolean; groups: string[]; errorAt: (field: string) => string }>()
defineEmits<{ remove: []; move: [by: number] }>()
const t = text.compose
const kinds = Object.entries(text.kinds)
const error = (field: string) => props.errorAt(`items[${props.index}].${field}`)
const fieldId = (field: string) => `item-${props.index}-${field}`

const formProblem = ref('')

function toggleGroup(group: string) {
  const at = props.item.groups.indexOf(group)
  if (at >= 0) props.item.groups.splice(at, 1)
  else props.item.groups.push(group)
}

async function takeForm(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  formProblem.value = ''
  try {
    const kept = await desk.keepForm(file)
    Object.assign(props.item, { formId: kept.id, formName: kept.name })
  } catch (error) {
    formProblem.value = (error as ApiProblem).detail
  }
}

function dropForm() {
  const { formId, formName } = props.item
  Object.assign(props.item, { formId: null, formName: '' })
  say(t.removed, { label: text.panel.undo, run: () => Object.assign(props.item, { formId, formName }) })
}

function toggleKind(kind: string) {
  const at = props.item.kinds.indexOf(kind)
  if (at >= 0) props.item.kinds.splice(at, 1)
  else props.item.kinds.push(kind)
}
</script>

<template>
  <li>
    <div class="top">
      <FieldBox :id="fieldId('title')" v-slot="{ attrs }" class="grow" :label="`${index + 1}. ${t.itemTitle}`" :error="error('title')">
        <input v-bind="attrs" v-model="item.title" class="input" maxlength="200" />
      </FieldBox>
      <label class="tick"><input v-model="item.required" type="checkbox" /> {{ t.required }}</label>
    </div>
    <FieldBox :id="fieldId('help')" v-slot="{ attrs }" :label="t.itemHelp" :error="error('help')">
      <input v-bind="attrs" v-model="item.help" class="input" maxlength="2000" />
    </FieldBox>
    <div class="numbers">
      <FieldBox :id="fieldId('min')" v-slot="{ attrs }" :label="t.minFiles" :error="error('minFiles')">
        <input v-bind="attrs" v-model.number="item.minFiles" class="input" type="number" min="1" max="5000" />
      </FieldBox>
      <FieldBox :id="fieldId('max')" v-slot="{ attrs }" :label="t.maxFiles" :error="error('maxFiles')">
        <input v-bind="attrs" v-model.number="item.maxFiles" class="input" type="number" min="1" max="5000" />
      </FieldBox>
      <FieldBox :id="fieldId('size')" v-slot="{ attrs }" :label="t.maxSize" :error="error('maxMebibytes')">
        <input v-bind="attrs" v-model.number="item.maxMebibytes" class="input" type="number" min="1" max="1048576" />
      </FieldBox>
    </div>
    <fieldset class="kinds">
      <legend>{{ t.kinds }} <span v-if="item.kinds.length === 0" class="quiet">({{ t.anyKind }})</span></legend>
      <label v-for="[kind, words] in kinds" :key="kind" class="tick"><input type="checkbox" :checked="item.kinds.includes(kind)" @change="toggleKind(kind)" /> {{ words }}</label>
      <p v-if="error('kinds')" class="error" role="alert">{{ error('kinds') }}</p>
    </fieldset>
    <div class="extras">
      <details :open="item.groups.length > 0 || !!error('groups')">
        <summary>{{ t.owedBy }}: <span class="quiet">{{ item.groups.join(', ') || t.everybodyOwes }}</span></summary>
        <label v-for="group in groups" :key="group" class="tick"><input type="checkbox" :checked="item.groups.includes(group)" @change="toggleGroup(group)" /> {{ group }}</label>
        <p v-if="error('groups')" class="error" role="alert">{{ error('groups') }}</p>
      </details>
      <p>
        <template v-if="item.formId">{{ t.form }}: <a :href="`/api/forms/${item.formId}`" class="mono" download>{{ item.formName }}</a> <button class="button plain small" type="button" @click="dropForm">{{ t.removeForm }}</button></template>
        <label v-else class="button plain small file">{{ t.addForm }}<input type="file" class="hidden-text" @change="takeForm" /></label>
        <span v-if="formProblem || error('form')" class="error" role="alert">{{ formProblem || error('form') }}</span>
      </p>
    </div>
    <div class="actions">
      <button class="button plain small" type="button" :disabled="index === 0" :aria-label="t.up(index + 1)" @click="$emit('move', -1)">↑</button>
      <button class="button plain small" type="button" :disabled="last" :aria-label="t.down(index + 1)" @click="$emit('move', 1)">↓</button>
      <button class="button plain small" type="button" @click="$emit('remove')">{{ t.removeItem(index + 1) }}</button>
    </div>
  </li>
</template>

<style scoped>
.extras {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin: 6px 0;
}
.file:focus-within {
  outline: 3px solid var(--oak);
}
li {
  padding: 12px 0 12px 14px;
  border-bottom: 1px solid var(--line);
  border-left: 4px solid var(--line);
  margin-top: 10px;
}
.top {
  display: flex;
  gap: 18px;
  align-items: center;
}
.grow {
  flex: 1;
}
.numbers {
  display: grid;
  grid-template-columns: 1fr 1fr 1.6fr;
  gap: 14px;
}
.tick {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 32px;
  margin-right: 16px;
}
.kinds {
  margin: 0;
  padding: 0;
  border: 0;
}
.kinds legend {
  font-weight: 600;
}
.kinds legend span {
  font-weight: 400;
}
.actions {
  display: flex;
}
.button.plain:disabled {
  border-color: transparent;
  background: none;
  text-decoration: none;
}
</style>
