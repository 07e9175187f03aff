<script setup lang="ts">
import { ref } from 'vue'

/** A button that opens a small box under it. The box stays in the page's order, so that the keyboard goes on into it. */
defineProps<{ label: string; small?: boolean }>()
const open = ref(false)
</script>

<template>
  <ElPopover v-model:visible="open" trigger="click" placement="bottom-end" width="280" :teleported="false" :show-arrow="false">
    <template #reference>
      <ElButton :size="small ? 'small' : 'default'" :aria-expanded="open">{{ label }}</ElButton>
    </template>
    <slot />
  </ElPopover>
</template>
