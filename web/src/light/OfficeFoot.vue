<script setup lang="ts">
import { face } from './face'

/** How the office can be reached, and what becomes of papers, where it says so. */
</script>

<template>
  <div v-if="face?.contact || face?.privacy" class="office-foot quiet">
    <p v-if="face.contact" dir="auto">{{ face.contact }}</p>
    <p v-if="face.privacy" dir="auto">{{ face.privacy }}</p>
  </div>
</template>

<style scoped>
.office-foot {
  margin-top: 28px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
  font-size: 15px;
}
.office-foot p {
  margin: 0 0 4px;
}
</style>
