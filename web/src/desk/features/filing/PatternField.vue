<script setup lang="ts">
import { computed, nextTick, useTemplateRef } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useInputAria } from '../../fields/use-input-aria'
import { useRead } from '../../queries'

/** A naming pattern: an opening brace offers the fields with what they stand for. */
defineOptions({ inheritAttrs: false })
defineProps<{ id?: string; longest: number; placeholder?: string }>()
const value = defineModel<string>({ required: true })
const { value: fields } = useRead(['pattern-fields'], desk.patternFields)
const options = computed(() => (fields.value ?? []).map((one) => ({ value: `${one.written}}`, label: `{${one.written}}`, words: one.words })))
const box = useTemplateRef<HTMLElement>('box')
useInputAria(box)

/** The library says that its field opens a list without saying that it is one that does, and leaves the list without a name. */
async function mend() {
  await nextTick()
  const input = box.value?.querySelector('input')
  if (input?.hasAttribute('aria-expanded')) input.setAttribute('role', 'combobox')
  else input?.removeAttribute('role')
  const list = input?.getAttribute('aria-controls')
  if (list) document.getElementById(list)?.setAttribute('aria-label', text.filing.fields)
}
</script>

<template>
  <span ref="box" class="pattern-field" @input="mend" @keyup="mend" @focusin="mend">
    <ElMention :id="id" v-model="value" class="mono" :options="options" prefix="{" split="" :maxlength="longest" :placeholder="placeholder" spellcheck="false" autocomplete="off" @keydown.esc.stop>
      <template #label="{ item }"><span class="mono">{{ item.label }}</span> <span class="quiet">{{ (item as unknown as { words: string }).words }}</span></template>
    </ElMention>
  </span>
</template>

<style scoped>
.pattern-field {
  display: block;
}
</style>
