<script setup lang="ts">
import { LANGUAGES, language, speak, text, type Language } from '../text/sender'
import { keptLanguage } from './kept-language'

/** The languages of the page, each by its own name. */
async function choose(event: Event) {
  const chosen = (event.target as HTMLSelectElement).value as Language
  await speak(chosen)
  keptLanguage.keep(chosen)
}
</script>

<template>
  <label class="language">
    <span class="hidden-text">{{ text.language }}</span>
    <select class="input" :value="language" @change="choose">
      <option v-for="(name, tag) in LANGUAGES" :key="tag" :value="tag" :lang="tag">{{ name }}</option>
    </select>
  </label>
</template>

<style scoped>
.language {
  margin-inline-start: auto;
}
.input {
  width: auto;
  font-size: 15px;
}
</style>
