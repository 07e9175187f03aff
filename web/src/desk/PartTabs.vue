<script setup lang="ts">
/** The parts of a tab, below its title. */
defineProps<{ label: string; parts: { to: string; label: string }[] }>()
</script>

<template>
  <nav class="parts" :aria-label="label">
    <RouterLink v-for="part in parts" :key="part.to" :to="part.to">{{ part.label }}</RouterLink>
  </nav>
</template>

<style scoped>
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin-bottom: 16px;
  border-bottom: 1px solid var(--line);
}
a {
  padding: 6px 2px;
  color: var(--bark);
  text-decoration: none;
}
a.router-link-exact-active {
  border-bottom: 3px solid var(--oak);
  font-weight: 600;
}
</style>
