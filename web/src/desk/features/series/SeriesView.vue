<script setup lang="ts">
import { useRoute, useRouter } from 'vue-router'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import FailureNote from '../../FailureNote.vue'
import { say } from '../../say'
import { useRead } from '../../queries'
import SeriesForm from './SeriesForm.vue'

/** Lets a round come again, or changes how a series does. */
const t = text.series
const route = useRoute()
const router = useRouter()
const id = Number(route.params.id)
const ofSeries = route.name === 'series'
const { value: series, problem, load } = useRead(['series', id, ofSeries], async () => (ofSeries ? ((await desk.series()).find((one) => one.id === id) ?? null) : null))

async function save(terms: Schemas['SeriesTerms']) {
  if (series.value) await desk.changeSeries(id, series.value.version, terms)
  else await desk.beginSeries(id, terms)
  await router.push('/rounds')
  say(t.saved)
}
</script>

<template>
  <div class="page">
    <header><h1>{{ series?.title || t.title }}</h1></header>
    <p class="help">{{ t.help }}</p>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <SeriesForm v-if="!ofSeries || series" :series="series ?? undefined" :label="ofSeries ? t.saveChange : t.save" :save="save" :reload="load" />
  </div>
</template>

<style scoped>
.help {
  margin-bottom: 14px;
}
</style>
