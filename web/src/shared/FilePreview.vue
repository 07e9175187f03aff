<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { desk, type Schemas } from '../api/desk'
import { text } from '../text/desk'
import PdfPages from './PdfPages.vue'
import TrackDrawing from './TrackDrawing.vue'

/** Shows a received file without ever letting the browser run anything in it: images as images, PDF drawn page by page, and what the server has read of text, tables and tracks. */
const props = defineProps<{ id: number; name: string; mediaType: string; loose?: boolean }>()
const t = text.preview

const url = `/api/${props.loose ? 'loose' : 'files'}/${props.id}/preview`
const kind = props.mediaType.startsWith('image/') && /png|jpeg|gif|webp/.test(props.mediaType) ? 'image'
  : props.mediaType === 'application/pdf' ? 'pdf'
  : 'glance'
const glance = ref<Schemas['Glance']>()
const failed = ref(false)

onMounted(async () => {
  try {
    if (kind === 'glance') glance.value = await (props.loose ? desk.glanceAtLoose(props.id) : desk.glance(props.id))
  } catch {
    failed.value = true
  }
})
</script>

<template>
  <div class="preview">
    <p v-if="failed" class="error">{{ t.failed }}</p>
    <img v-else-if="kind === 'image'" :src="url" :alt="name" @error="failed = true" />
    <PdfPages v-else-if="kind === 'pdf'" :url="url" :name="name" :earlier="t.earlier" :later="t.later" :page-of="t.page" @failed="failed = true" />
    <template v-else-if="glance">
      <!-- eslint-disable-next-line -->
      <pre v-if="glance.kind === 'TEXT'" tabindex="0" :aria-label="name">{{ glance.text }}</pre>
      <div v-else-if="glance.kind === 'TABLE'" class="sheet" tabindex="0" role="region" :aria-label="`${name}: ${t.table}`">
        <table><tbody><tr v-for="(row, n) in glance.rows" :key="n"><th scope="row">{{ n + 1 }}</th><td v-for="(cell, m) in row" :key="m">{{ cell }}</td></tr></tbody></table>
      </div>
      <TrackDrawing v-else-if="glance.kind === 'TRACK'" :parts="glance.track" :name="name" />
      <p v-else class="quiet">{{ glance.kind === 'NONE' ? t.none : t.unreadable }}</p>
      <p v-if="glance.cut" class="quiet">{{ t.cut }}</p>
    </template>
  </div>
</template>

<style scoped>
.preview {
  padding: 8px 0;
}
.sheet {
  max-height: 60vh;
  overflow: auto;
  border: 1px solid var(--line);
  background: #fff;
}
.sheet table {
  border-collapse: collapse;
  font-size: 14px;
}
.sheet td,
.sheet th {
  padding: 2px 8px;
  border: 1px solid var(--line);
  white-space: nowrap;
}
.sheet th {
  background: var(--tint);
  font-weight: 400;
  text-align: right;
}
img {
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
</style>
