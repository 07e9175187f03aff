<script setup lang="ts">
/** Stays at the top while something is chosen: how much, and what can be done to all of it. Forms of it stand in the default slot. */
defineProps<{ label: string }>()
</script>

<template>
  <section class="bulk" :aria-label="label">
    <strong aria-live="polite">{{ label }}</strong>
    <div class="actions"><slot name="actions" /></div>
    <slot />
  </section>
</template>

<style scoped>
.bulk {
  position: sticky;
  top: 0;
  z-index: 4;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
  margin-bottom: 8px;
  padding: 8px 14px;
  border: 1px solid var(--oak);
  background: var(--card);
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.bulk > :deep(form) {
  flex-basis: 100%;
}
</style>
