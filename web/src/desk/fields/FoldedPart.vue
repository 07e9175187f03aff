<script setup lang="ts">
import { ref } from 'vue'

/** A part that is folded to its name until it is wanted. */
defineProps<{ label: string; more?: string }>()
const open = ref<string[]>([])
</script>

<template>
  <ElCollapse v-model="open" class="folded-part">
    <ElCollapseItem name="part">
      <template #title>
        <span class="name">{{ label }} <span v-if="more" class="quiet">{{ more }}</span></span>
      </template>
      <slot />
    </ElCollapseItem>
  </ElCollapse>
</template>

<style scoped>
.name .quiet {
  margin-left: 10px;
  font-weight: 400;
}
</style>
