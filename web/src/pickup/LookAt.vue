<script setup lang="ts">
import { defineAsyncComponent, onMounted, ref } from 'vue'
import { text } from '../text/pickup'
import type { OfferedFile } from './use-pick-up'

/** Shows a file without ever letting the browser run anything in it. What draws PDF comes when somebody wants to see one. */
const props = defineProps<{ file: OfferedFile; url: string }>()
const PdfPages = defineAsyncComponent(() => import('../shared/PdfPages.vue'))
const MOST_BYTES = 60_000
const failed = ref(false)
const written = ref<string>()

onMounted(async () => {
  if (props.file.look !== 'TEXT') return
  try {
    const response = await fetch(props.url, { headers: { Range: `bytes=0-${MOST_BYTES - 1}` } })
    if (!response.ok) throw new Error(String(response.status))
    written.value = new TextDecoder().decode(await response.arrayBuffer())
  } catch {
    failed.value = true
  }
})
</script>

<template>
  <div class="look">
    <p v-if="failed" class="quiet" role="status">{{ text.lookFailed }}</p>
    <img v-else-if="file.look === 'PICTURE'" :src="url" :alt="file.name" @error="failed = true" />
    <PdfPages v-else-if="file.look === 'PDF'" :url="url" :name="file.name" :earlier="text.earlier" :later="text.later" :page-of="text.page" @failed="failed = true" />
    <template v-else-if="written !== undefined">
      <!-- eslint-disable-next-line -->
      <pre tabindex="0" dir="auto" :aria-label="file.name">{{ written }}</pre>
      <p v-if="file.bytes > MOST_BYTES" class="quiet">{{ text.cut }}</p>
    </template>
    <p v-else class="quiet">{{ text.loading }}</p>
  </div>
</template>

<style scoped>
.look {
  padding: 8px 0 12px;
}
img {
  display: block;
  max-width: 100%;
  border: 1px solid var(--line);
  background: #fff;
}
pre {
  max-height: 60vh;
  margin: 0;
  padding: 10px;
  overflow: auto;
  border: 1px solid var(--line);
  background: #fff;
  font-family: var(--mono);
  font-size: 14px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
