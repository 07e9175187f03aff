<script setup lang="ts">
import { computed } from 'vue'

/**
 * A name that came from outside, kept to itself: no direction mark in it turns the words around it, and each mark is shown by its number in Unicode, so that
 * a name cannot look like another.
 */
const props = defineProps<{ name: string }>()
// eslint-disable-next-line no-control-regex -- control characters are what is looked for
const HIDDEN = /([\u0000-\u001f\u007f-\u009f\u00ad\u061c\u200b-\u200f\u2028-\u202e\u2060-\u206f\ufeff])/
const parts = computed(() => props.name.split(HIDDEN).filter(Boolean).map((part) => ({ part, hidden: HIDDEN.test(part) })))
const code = (mark: string) => `U+${mark.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`
</script>

<template>
  <bdi><template v-for="(one, n) in parts" :key="n"><span v-if="one.hidden" class="mark">{{ code(one.part) }}</span><template v-else>{{ one.part }}</template></template></bdi>
</template>

<style scoped>
.mark {
  margin: 0 2px;
  padding: 0 3px;
  border: 1px solid var(--rowan);
  border-radius: var(--corner);
  color: var(--rowan);
  font-size: 0.8em;
}
</style>
