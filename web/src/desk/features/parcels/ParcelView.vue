<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import ParcelDraft from './ParcelDraft.vue'
import ParcelLive from './ParcelLive.vue'

/** One parcel: while it is a draft its sheet, then what became of it. */
const t = text.parcels
const route = useRoute()
const id = computed(() => Number(route.params.id))
const { value: full, problem, load } = useRead(computed(() => ['parcel', id.value]), () => desk.parcel(id.value), { fresh: true, on: (event) => event.type === 'parcel' || event.type === 'taken' })
const draft = computed(() => full.value?.parcel.state === 'DRAFT')
</script>

<template>
  <div class="page">
    <header>
      <div>
        <p class="back"><RouterLink to="/parcels">{{ t.back }}</RouterLink></p>
        <h1>{{ full ? (draft ? full.parcel.title || t.draftTitle : full.parcel.title) : t.title }}</h1>
        <p v-if="full && !draft" class="quiet">{{ t.states[full.parcel.state] }}<template v-if="full.parcel.endsSoon">, <span class="soon">{{ t.endsSoon }}</span></template>; {{ full.parcel.by }}</p>
      </div>
    </header>
    <FailureNote v-if="problem && !full" :problem="problem" @retry="load" />
    <LoadingPart v-if="!full && !problem" />
    <template v-if="full">
      <ParcelDraft v-if="draft" :full="full" :reload="load" @changed="load" />
      <ParcelLive v-else :full="full" :reload="load" @changed="load" />
    </template>
  </div>
</template>

<style scoped>
.back {
  font-size: 15px;
}
.soon {
  color: var(--acorn-text);
}
</style>
