<script setup lang="ts">
import { text } from '../text/desk'

/** A button for what cannot be undone: it asks once, in its own words, before anything is done. */
defineProps<{ label: string; question: string; name?: string; small?: boolean; plain?: boolean }>()
const emit = defineEmits<{ sure: [] }>()
</script>

<template>
  <ElPopconfirm :title="question" width="300" :confirm-button-text="label" :cancel-button-text="text.round.cancel" confirm-button-type="danger" hide-icon :teleported="false" @confirm="emit('sure')">
    <template #reference>
      <ElButton :type="plain ? 'default' : 'primary'" :link="!plain" :size="small ? 'small' : 'default'" :aria-label="name">{{ label }}</ElButton>
    </template>
  </ElPopconfirm>
</template>
