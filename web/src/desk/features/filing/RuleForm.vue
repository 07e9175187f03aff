<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import { choices } from '../../fields/choices'
import FieldBox from '../compose/FieldBox.vue'
import ConditionRow from './ConditionRow.vue'
import PlaceFields from './PlaceFields.vue'
import type { Root, Rule } from './rule-words'

/** One rule while it is changed. */
const props = defineProps<{ id: string; at: string; rule: Rule; roots: Root[]; round: number; items: string[]; groups: string[]; errorAt: (field: string) => string; folderOfRound: string; nameOfRound: string }>()
const t = text.filing
type Doing = keyof typeof t.doing

/** What it does is one choice here; the rule keeps it in parts. */
const doing = computed<Doing>({
  get: () => (props.rule.also ? 'ALSO' : props.rule.tray ? 'TRAY' : props.rule.place && !props.rule.place.folder && props.rule.place.name && props.rule.place.root <= 1 ? 'NAME' : 'PLACE'),
  set: (to) => {
    props.rule.also = to === 'ALSO'
    props.rule.tray = to === 'TRAY'
    props.rule.place = to === 'PLACE' ? { root: 0, folder: '', name: '' } : to === 'NAME' ? { root: 0, folder: '', name: props.nameOfRound } : null
    if (to !== 'ALSO') return
    if (props.rule.copies.length === 0 && !props.rule.mark && !props.rule.tell) addCopy()
  },
})

function addCopy() {
  props.rule.copies.push({ root: 0, folder: '', name: '' })
}
</script>

<template>
  <div class="rule-form">
    <FieldBox :id="`${id}-called`" v-slot="{ attrs }" :label="t.name" :error="errorAt(`${at}.name`)"><ElInput v-bind="attrs" v-model="rule.name" /></FieldBox>
    <fieldset>
      <legend>{{ t.join }}</legend>
      <ElRadioGroup v-if="rule.conditions.length > 1" v-model="rule.join" :aria-label="t.join"><ElRadio v-for="(label, key) in t.joins" :key="key" :value="key">{{ label }}</ElRadio></ElRadioGroup>
      <p v-if="rule.conditions.length === 0" class="quiet">{{ t.always }}</p>
      <ol>
        <ConditionRow v-for="(condition, n) in rule.conditions" :id="`${id}-condition-${n}`" :key="n" :condition="condition" :number="n + 1" :items="items" :groups="groups"
          :error="errorAt(`${at}.conditions[${n}].value`)" @remove="rule.conditions.splice(n, 1)" />
      </ol>
      <ElButton size="small" @click="rule.conditions.push({ subject: 'ITEM', test: 'IS', value: '' })">{{ t.addCondition }}</ElButton>
      <p class="error" role="alert">{{ errorAt(`${at}.conditions`) }}</p>
    </fieldset>
    <FieldBox :id="`${id}-doing`" v-slot="{ attrs }" :label="t.what" :error="errorAt(`${at}.effects`)"><ChoiceField v-bind="attrs" v-model="doing" :choices="choices(t.doing)" /></FieldBox>
    <PlaceFields v-if="rule.place" :id="`${id}-place`" :at="`${at}.place`" :place="rule.place" :roots="roots" :round="round" :name-only="doing === 'NAME'" :error-at="errorAt" :folder-of-round="folderOfRound" :name-of-round="nameOfRound" />
    <div v-for="(copy, n) in rule.copies" :key="n" class="copy">
      <p>{{ t.copies }} <ElButton type="primary" link size="small" :aria-label="t.removeCopy(n + 1)" @click="rule.copies.splice(n, 1)">{{ t.remove }}</ElButton></p>
      <PlaceFields :id="`${id}-copy-${n}`" :at="`${at}.copies[${n}]`" :place="copy" :roots="roots" :round="round" :error-at="errorAt" :folder-of-round="folderOfRound" :name-of-round="nameOfRound" />
    </div>
    <p class="error" role="alert">{{ errorAt(`${at}.copies`) }}</p>
    <div class="pair">
      <FieldBox :id="`${id}-mark`" v-slot="{ attrs }" :label="t.mark" :error="errorAt(`${at}.mark`)"><ElInput v-bind="attrs" v-model="rule.mark" /></FieldBox>
      <FieldBox :id="`${id}-tell`" v-slot="{ attrs }" :label="t.tell" :error="errorAt(`${at}.tell`)" :hint="t.tellHint"><ElInput v-bind="attrs" v-model="rule.tell" type="email" /></FieldBox>
    </div>
    <div class="last">
      <ElButton size="small" @click="addCopy">{{ t.addCopy }}</ElButton>
      <ElCheckbox v-model="rule.active">{{ t.active }}</ElCheckbox>
    </div>
  </div>
</template>

<style scoped>
.rule-form {
  padding-top: 8px;
  border-top: 1px solid var(--line);
}
fieldset {
  margin: 0 0 10px;
  padding: 0;
  border: 0;
}
ol {
  display: grid;
  gap: 6px;
  margin: 4px 0 8px;
  padding: 0;
  list-style: none;
}
.copy {
  margin: 8px 0;
  padding-left: 14px;
  border-left: 3px solid var(--line);
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  align-items: start;
}
.last {
  display: flex;
  gap: 18px;
  align-items: center;
}
</style>
