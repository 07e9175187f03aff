<script setup lang="ts">
import { onMounted, onUnmounted, ref, shallowRef, useTemplateRef } from 'vue'
import type { PDFDocumentProxy } from 'pdfjs-dist'
import { text } from '../text/desk'

/** Shows a received file without ever letting the browser run anything in it: images as images, text as text, PDF drawn page by page. */
const props = defineProps<{ id: number; name: string; mediaType: string }>()
const t = text.preview
const LONGEST_TEXT = 200_000

const url = `/api/files/${props.id}/preview`
const kind = props.mediaType.startsWith('image/') && /png|jpeg|gif|webp/.test(props.mediaType) ? 'image'
  : props.mediaType === 'application/pdf' ? 'pdf'
  : /^text\/|xml$|json$/.test(props.mediaType) ? 'text' : 'none'
const content = ref('')
const cut = ref(false)
const failed = ref(false)
const document_ = shallowRef<PDFDocumentProxy>()
const pageNumber = ref(1)
const canvas = useTemplateRef('canvas')

onMounted(async () => {
  try {
    if (kind === 'text') {
      const response = await fetch(url)
      if (!response.ok) throw new Error(String(response.status))
      const whole = await response.text()
      cut.value = whole.length > LONGEST_TEXT
      content.value = whole.slice(0, LONGEST_TEXT)
    }
    if (kind === 'pdf') await openPdf()
  } catch {
    failed.value = true
  }
})

onUnmounted(() => void document_.value?.destroy())

async function openPdf() {
  const pdf = await import('pdfjs-dist')
  pdf.GlobalWorkerOptions.workerSrc = (await import('pdfjs-dist/build/pdf.worker.min.mjs?url')).default
  document_.value = await pdf.getDocument({ url, isEvalSupported: false, useWasm: false, useSystemFonts: true, verbosity: 0 }).promise
  await draw(1)
}

async function draw(number: number) {
  pageNumber.value = number
  const page = await document_.value!.getPage(number)
  const width = canvas.value?.parentElement?.clientWidth ?? 400
  const natural = page.getViewport({ scale: 1 })
  const viewport = page.getViewport({ scale: (width / natural.width) * Math.min(devicePixelRatio, 2) })
  if (!canvas.value) return
  canvas.value.width = viewport.width
  canvas.value.height = viewport.height
  await page.render({ canvas: canvas.value, viewport }).promise
}
</script>

<template>
  <div class="preview">
    <p v-if="failed" class="error">{{ t.failed }}</p>
    <img v-else-if="kind === 'image'" :src="url" :alt="name" @error="failed = true" />
    <template v-else-if="kind === 'pdf'">
      <canvas ref="canvas" role="img" :aria-label="name"></canvas>
      <p v-if="document_ && document_.numPages > 1" class="pages">
        <button class="button small" type="button" :disabled="pageNumber <= 1" @click="draw(pageNumber - 1)">{{ t.earlier }}</button>
        {{ t.page(pageNumber, document_.numPages) }}
        <button class="button small" type="button" :disabled="pageNumber >= document_.numPages" @click="draw(pageNumber + 1)">{{ t.later }}</button>
      </p>
    </template>
    <template v-else-if="kind === 'text'">
      <!-- eslint-disable-next-line -->
      <pre tabindex="0" :aria-label="name">{{ content }}</pre>
      <p v-if="cut" class="quiet">{{ t.cut }}</p>
    </template>
    <p v-else class="quiet">{{ t.none }}</p>
  </div>
</template>

<style scoped>
.preview {
  padding: 8px 0;
}
img,
canvas {
  display: block;
  width: 100%;
  border: 1px solid var(--line);
  background: #fff;
}
pre {
  max-height: 320px;
  margin: 0;
  padding: 10px;
  overflow: auto;
  border: 1px solid var(--line);
  background: #fff;
  font-family: var(--mono);
  font-size: 14px;
  white-space: pre-wrap;
}
.pages {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 6px;
}
</style>
