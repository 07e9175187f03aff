<script setup lang="ts">
import { onMounted, useTemplateRef } from 'vue'

/** A field that suggests what may be meant; anything else may be typed too. */
defineOptions({ inheritAttrs: false })
const box = useTemplateRef<HTMLElement>('box')
const typed = defineModel<string>({ required: true })

/** The library names a suggestion as the current one also while there is none, which leads screen readers to nowhere. */
function mend() {
  const input = box.value?.querySelector('input')
  const current = input?.getAttribute('aria-activedescendant')
  if (current && !document.getElementById(current)) input!.removeAttribute('aria-activedescendant')
}

onMounted(mend)
defineExpose({ focus: () => box.value?.querySelector('input')?.focus() })
</script>

<template>
  <span ref="box" class="suggest-field" :class="$attrs.class" @keyup="mend" @focusout="mend">
    <ElAutocomplete v-bind="{ ...$attrs, class: undefined }" v-model="typed">
      <template v-if="$slots.default" #default="{ item }"><slot :item="item" /></template>
    </ElAutocomplete>
  </span>
</template>

<style scoped>
.suggest-field {
  display: block;
  min-width: 0;
}
.suggest-field .el-autocomplete {
  width: 100%;
}
</style>
