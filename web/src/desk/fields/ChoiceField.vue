<script setup lang="ts" generic="T extends string | number | null">
import { computed, useTemplateRef } from 'vue'
import { text } from '../../text/desk'
import type { Choice } from './choices'
import { useInputAria } from './use-input-aria'

/** One of several, each with its words. The value may be anything that is compared with ===, also null. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{ choices: Choice<T>[]; id?: string; label?: string; filterable?: boolean; small?: boolean }>()
const value = defineModel<T>({ required: true })
const box = useTemplateRef<HTMLElement>('box')
useInputAria(box)

/** The library knows no null; it is given the place in the list, and nothing where the value is not in it. */
const at = computed({
  get: () => {
    const n = props.choices.findIndex((one) => one.value === value.value)
    return n < 0 ? undefined : n
  },
  set: (n: number | undefined) => n !== undefined && (value.value = props.choices[n]!.value),
})
</script>

<template>
  <span ref="box" class="choice-field" :class="$attrs.class">
    <ElSelect :id="id" v-model="at" :filterable="filterable" :aria-label="label" :size="small ? 'small' : 'default'" :placeholder="text.choose" :fit-input-width="false">
      <ElOption v-for="(choice, n) in choices" :key="n" :value="n" :label="choice.label" />
    </ElSelect>
  </span>
</template>

<style scoped>
.choice-field {
  display: block;
  min-width: 0;
}
</style>
