<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'

/** What patterns make of usual and of awkward files, asked while they are typed. */
const props = defineProps<{ folder: string; name: string; round?: number; title?: string }>()
const t = text.filing
const WAIT_MILLISECONDS = 250
const examples = ref<Schemas['NameExample'][]>([])

watchDebounced(() => [props.folder, props.name, props.title], async () => {
  try {
    const answer = await desk.patternExample({ folderPattern: props.folder, namePattern: props.name, roundId: props.round || null, title: props.title ?? null, zone: null, item: null, person: null, email: null })
    if (answer.examples.length > 0) examples.value = answer.examples
  } catch {
    examples.value = []
  }
}, { debounce: WAIT_MILLISECONDS, immediate: true })
</script>

<template>
  <figure v-if="examples.length > 0">
    <figcaption>{{ t.examples }}</figcaption>
    <dl>
      <template v-for="one in examples" :key="one.what">
        <dt class="quiet">{{ t.exampleKinds[one.what] ?? one.what }}</dt>
        <dd class="mono">{{ one.path }}</dd>
      </template>
    </dl>
  </figure>
</template>

<style scoped>
figure {
  margin: 6px 0 10px;
}
figcaption {
  font-size: 15px;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 14px;
  margin: 4px 0 0;
  font-size: 14px;
}
dd {
  margin: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
