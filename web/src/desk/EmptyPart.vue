<script setup lang="ts">
import OakMark from '../shared/OakMark.vue'

/** Says that there is nothing yet, and what to do about it. */
defineProps<{ words: string }>()
</script>

<template>
  <ElEmpty :description="words">
    <template #image><OakMark :size="52" aria-hidden="true" /></template>
    <slot />
  </ElEmpty>
</template>
