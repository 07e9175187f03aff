<script setup lang="ts">
import { text } from '../text/desk'

/** Stands where something is being read, in about the shape it will have. */
withDefaults(defineProps<{ rows?: number }>(), { rows: 6 })
</script>

<template>
  <div role="status">
    <span class="hidden-text">{{ text.loading }}</span>
    <ElSkeleton :rows="rows" animated aria-hidden="true" />
  </div>
</template>
