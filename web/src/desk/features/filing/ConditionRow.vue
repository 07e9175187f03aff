<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../../../text/desk'
import SuggestField from '../../fields/SuggestField.vue'
import ChoiceField from '../../fields/ChoiceField.vue'
import { choices } from '../../fields/choices'
import { TESTS, type Condition } from './rule-words'

/** One condition: what is looked at, how, and with what it is compared. */
const props = defineProps<{ id: string; condition: Condition; number: number; error: string; items: string[]; groups: string[] }>()
const emit = defineEmits<{ remove: [] }>()
const t = text.filing

const subject = computed({
  get: () => props.condition.subject,
  set: (to: Condition['subject']) => {
    props.condition.subject = to
    if (!TESTS[to].includes(props.condition.test)) props.condition.test = TESTS[to][0]!
    const offered = t.choices[to]
    if (offered && !(props.condition.value in offered)) props.condition.value = Object.keys(offered)[0]!
    else if (!offered && Object.values(t.choices).some((one) => props.condition.value in one)) props.condition.value = ''
  },
})
const tests = computed(() => TESTS[props.condition.subject].map((value) => ({ value, label: t.tests[value] })))
const offered = computed(() => t.choices[props.condition.subject])
const known = computed(() => (props.condition.subject === 'ITEM' ? props.items : props.condition.subject === 'GROUP' ? props.groups : []))

function suggest(typed: string, show: (found: { value: string }[]) => void) {
  const words = typed.toLowerCase()
  show(known.value.filter((one) => one.toLowerCase().includes(words)).map((value) => ({ value })))
}
</script>

<template>
  <li class="condition">
    <ChoiceField v-model="subject" :choices="choices(t.subjects)" :label="t.subject" />
    <ChoiceField v-model="condition.test" :choices="tests" :label="t.test" />
    <ChoiceField v-if="offered" v-model="condition.value" :choices="choices<string>(offered)" :label="t.value" />
    <SuggestField v-else v-model="condition.value" :fetch-suggestions="suggest" :aria-label="t.value" :aria-invalid="!!error" :aria-describedby="`${id}-error`" :teleported="false" />
    <ElButton size="small" :aria-label="t.removeCondition(number)" @click="emit('remove')">{{ t.remove }}</ElButton>
    <p :id="`${id}-error`" class="error" role="alert">{{ error }}</p>
  </li>
</template>

<style scoped>
.condition {
  display: grid;
  grid-template-columns: minmax(130px, 2fr) minmax(150px, 2fr) minmax(160px, 3fr) auto;
  gap: 4px 8px;
  align-items: center;
}
.error {
  grid-column: 1 / -1;
}
</style>
