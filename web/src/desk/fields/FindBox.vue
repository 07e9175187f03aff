<script setup lang="ts" generic="T extends { key: string }">
import { ref, useTemplateRef } from 'vue'
import SuggestField from './SuggestField.vue'

/** A field that finds things by a few letters. The slot draws one thing found. */
const props = defineProps<{ id?: string; label: string; placeholder?: string; none?: string; find: (words: string) => Promise<T[]> }>()
const emit = defineEmits<{ pick: [choice: T] }>()
const WAIT_MILLISECONDS = 200
const typed = ref('')
const field = useTemplateRef<{ focus: () => void }>('field')
let asked = 0

async function look(words: string, show: (found: ({ value: string } & Record<string, unknown>)[]) => void) {
  if (!words.trim()) return show([])
  const mine = ++asked
  const found = await props.find(words).catch(() => [])
  // A later question may have been answered already.
  if (mine !== asked || !typed.value.trim()) return
  show(found.length > 0 ? found.map((thing) => ({ value: words, thing })) : props.none ? [{ value: words, nothing: true }] : [])
}

function pick(choice: Record<string, unknown>) {
  if (choice.nothing) return
  asked++
  typed.value = ''
  emit('pick', choice.thing as T)
}

defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <SuggestField
    :id="id"
    ref="field"
    v-model="typed"
    popper-class="found"
    :aria-label="label"
    :placeholder="placeholder ?? label"
    :fetch-suggestions="look"
    :debounce="WAIT_MILLISECONDS"
    :trigger-on-focus="false"
    highlight-first-item
    fit-input-width
    spellcheck="false"
    @select="pick"
  >
    <template #default="{ item }">
      <span v-if="item.nothing" class="quiet">{{ none }}</span>
      <slot v-else :choice="item.thing as T" />
    </template>
  </SuggestField>
</template>

