<script setup lang="ts">
import { ref, watch } from 'vue'
import { readTime } from '../../shared/dates'
import SuggestField from './SuggestField.vue'

/** A time of the day, typed or taken from the half hours offered; the value is hours and minutes of 24, or empty. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{ id?: string; label?: string }>()
const value = defineModel<string>({ required: true })
const typed = ref('')
const HALF_HOURS = Array.from({ length: 48 }, (_, n) => `${String(Math.floor(n / 2)).padStart(2, '0')}:${n % 2 ? '30' : '00'}`)

watch(value, (now) => (typed.value = now.slice(0, 5)), { immediate: true })

function offered(words: string, show: (times: { value: string }[]) => void) {
  const begun = HALF_HOURS.filter((time) => time.startsWith(words.trim()))
  show((words === value.value.slice(0, 5) ? HALF_HOURS : begun).map((time) => ({ value: time })))
}

/** What cannot be read as a time gives way to the one before. */
function take() {
  value.value = typed.value.trim() === '' ? '' : (readTime(typed.value) ?? value.value)
  typed.value = value.value.slice(0, 5)
}
</script>

<template>
  <span class="time-field" :class="$attrs.class" @keyup.enter="take">
    <SuggestField :id="props.id" v-model="typed" v-bind="{ ...$attrs, class: undefined }" :aria-label="label" maxlength="8" :fetch-suggestions="offered" @change="take" @select="take" />
  </span>
</template>

<style scoped>
.time-field {
  display: block;
  min-width: 0;
}
</style>
