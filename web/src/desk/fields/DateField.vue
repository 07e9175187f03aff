<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { DATE_FORMAT, readDate, writtenDate } from '../../shared/dates'
import { useInputAria } from './use-input-aria'

/** A day, chosen in a calendar or typed as the office writes days; the value is an ISO 8601 date, or empty. */
defineOptions({ inheritAttrs: false })
defineProps<{ id?: string; label?: string }>()
const value = defineModel<string>({ required: true })
const box = useTemplateRef<HTMLElement>('box')
const picker = useTemplateRef<{ focus: () => void }>('picker')
useInputAria(box)

const day = computed({ get: () => value.value || null, set: (chosen: string | null) => (value.value = chosen ?? '') })

/** Turns what was typed into the one form that the library reads, before it looks. */
function tidy() {
  const input = box.value?.querySelector('input')
  const read = input && readDate(input.value)
  if (!read || input.value === writtenDate(read)) return
  input.value = writtenDate(read)
  input.dispatchEvent(new Event('input', { bubbles: true }))
}

defineExpose({ focus: () => picker.value?.focus() })
</script>

<template>
  <span ref="box" class="date-field" @change.capture="tidy" @keydown.enter.capture="tidy">
    <ElDatePicker :id="id" ref="picker" v-model="day" :format="DATE_FORMAT" value-format="YYYY-MM-DD" :aria-label="label" />
  </span>
</template>

<style scoped>
.date-field {
  display: block;
  min-width: 0;
}
</style>
