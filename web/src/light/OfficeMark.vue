<script setup lang="ts">
import OakMark from '../shared/OakMark.vue'
import { face } from './face'

/** The logo of the office; the mark of the product where it has none. */
</script>

<template>
  <img v-if="face?.logo" class="logo" :src="`/brand/${face.logo}.png`" alt="" />
  <OakMark v-else :size="30" />
</template>

<style scoped>
.logo {
  display: block;
  max-width: min(240px, 60vw);
  max-height: 56px;
}
</style>
