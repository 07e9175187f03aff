<script setup lang="ts">
import { onMounted, onUnmounted, ref, shallowRef, useTemplateRef } from 'vue'
import type { PDFDocumentProxy } from 'pdfjs-dist'

/** A PDF drawn page by page, without ever letting the browser run anything in it. */
const props = defineProps<{ url: string; name: string; earlier: string; later: string; pageOf: (page: number, pages: number) => string }>()
const emit = defineEmits<{ failed: [] }>()
const opened = shallowRef<PDFDocumentProxy>()
const number = ref(1)
const canvas = useTemplateRef('canvas')

onMounted(async () => {
  try {
    const pdf = await import('pdfjs-dist')
    pdf.GlobalWorkerOptions.workerSrc = (await import('pdfjs-dist/build/pdf.worker.min.mjs?url')).default
    opened.value = await pdf.getDocument({ url: props.url, isEvalSupported: false, useWasm: false, useSystemFonts: true, verbosity: 0 }).promise
    await draw(1)
  } catch {
    emit('failed')
  }
})

onUnmounted(() => void opened.value?.destroy())

async function draw(wanted: number) {
  number.value = wanted
  const page = await opened.value!.getPage(wanted)
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
  <canvas ref="canvas" role="img" :aria-label="name"></canvas>
  <p v-if="opened && opened.numPages > 1" class="pages">
    <button class="button small" type="button" :disabled="number <= 1" @click="draw(number - 1)">{{ earlier }}</button>
    {{ pageOf(number, opened.numPages) }}
    <button class="button small" type="button" :disabled="number >= opened.numPages" @click="draw(number + 1)">{{ later }}</button>
  </p>
</template>

<style scoped>
canvas {
  display: block;
  width: 100%;
  border: 1px solid var(--line);
  background: #fff;
}
.pages {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 6px;
}
</style>
