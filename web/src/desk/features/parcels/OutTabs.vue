<script setup lang="ts">
import { text } from '../../../text/desk'

/** What goes out: files handed out, and places in which papers go in both directions. */
const t = text.exchanges.parts
</script>

<template>
  <nav class="parts" :aria-label="t.label">
    <RouterLink to="/parcels">{{ t.parcels }}</RouterLink>
    <RouterLink to="/exchanges">{{ t.exchanges }}</RouterLink>
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
