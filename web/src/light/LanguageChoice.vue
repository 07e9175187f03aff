<script setup lang="ts">
import { LANGUAGES, language, type Language } from '../text/speaking'
import { keptLanguage } from './kept-language'

/** The languages of a page, each by its own name. */
const props = defineProps<{ label: string; speak: (tag: Language) => Promise<void> }>()

async function choose(event: Event) {
  const chosen = (event.target as HTMLSelectElement).value as Language
  await props.speak(chosen)
  keptLanguage.keep(chosen)
}
</script>

<template>
  <label class="language">
    <span class="hidden-text">{{ label }}</span>
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
