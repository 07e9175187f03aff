<script setup lang="ts">
import type { Standing } from './tile'
import { drawing } from './WeaveSprite.vue'

/** One item of one basket at a glance; the drawing stands in WeaveSprite. */
defineProps<{ standing: Standing; late?: boolean; overdue?: boolean; label: string }>()
</script>

<template>
  <svg class="tile" width="22" height="22" role="img" :aria-label="label"><title>{{ label }}</title><use :href="`#${drawing(standing, late, overdue)}`" /></svg>
</template>

<style scoped>
.tile {
  display: block;
  flex: none;
}
</style>
