<script setup lang="ts">
import { onMounted, onUnmounted, useTemplateRef } from 'vue'

/** A button that opens a small box under it. It closes on the Escape key, on a click anywhere else, and when the keyboard leaves it. */
defineProps<{ label: string; small?: boolean }>()
const box = useTemplateRef('box')

function close() {
  if (box.value) box.value.open = false
}

function outside(event: PointerEvent) {
  if (!box.value?.contains(event.target as Node)) close()
}

function left(event: FocusEvent) {
  if (event.relatedTarget && !box.value?.contains(event.relatedTarget as Node)) close()
}

function escape() {
  close()
  box.value?.querySelector('summary')?.focus()
}

onMounted(() => document.addEventListener('pointerdown', outside))
onUnmounted(() => document.removeEventListener('pointerdown', outside))
</script>

<template>
  <details ref="box" class="menu" @keydown.esc.stop="escape" @focusout="left">
    <summary class="button" :class="{ small }">{{ label }}</summary>
    <div class="inside"><slot :close="close" /></div>
  </details>
</template>

<style scoped>
.menu {
  position: relative;
}
summary {
  list-style: none;
}
summary.small {
  min-height: 36px;
}
summary::-webkit-details-marker {
  display: none;
}
.inside {
  position: absolute;
  right: 0;
  z-index: 6;
  display: grid;
  width: 280px;
  max-height: 60vh;
  margin-top: 4px;
  padding: 6px 0;
  overflow: auto;
  border: 1px solid var(--line-strong);
  background: var(--card);
}
</style>
