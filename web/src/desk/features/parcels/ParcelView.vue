<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import SharingDialog from '../../sharing/SharingDialog.vue'
import { may } from '../../use-session'
import ParcelDraft from './ParcelDraft.vue'
import ParcelLive from './ParcelLive.vue'

/** One parcel: while it is a draft its sheet, then what became of it. */
const t = text.parcels
const route = useRoute()
const id = computed(() => Number(route.params.id))
const { value: full, problem, load } = useRead(computed(() => ['parcel', id.value]), () => desk.parcel(id.value), { fresh: true, on: (event) => event.type === 'parcel' || event.type === 'taken' })
const draft = computed(() => full.value?.parcel.state === 'DRAFT')
const router = useRouter()
const sharing = ref(false)

/** Whoever gave it away to others does not see it any more. */
async function shared() {
  await load()
  if (problem.value?.status === 404) await router.push('/parcels')
}
</script>

<template>
  <div class="page">
    <header>
      <div>
        <p class="back"><RouterLink to="/parcels">{{ t.back }}</RouterLink></p>
        <h1>{{ full ? (draft ? full.parcel.title || t.draftTitle : full.parcel.title) : t.title }}</h1>
        <p v-if="full && !draft" class="quiet">{{ t.states[full.parcel.state] }}<template v-if="!full.parcel.wholeOffice">, {{ t.keptToSome }}</template><template v-if="full.parcel.endsSoon">, <span class="soon">{{ t.endsSoon }}</span></template>; {{ full.parcel.by }}</p>
        <p v-else-if="full && !full.parcel.wholeOffice" class="quiet">{{ t.keptToSome }}; {{ full.parcel.by }}</p>
      </div>
      <div v-if="full && may('HAND_OUT')" class="actions"><ElButton @click="sharing = true">{{ text.team.sharing }}</ElButton></div>
    </header>
    <FailureNote v-if="problem && !full" :problem="problem" @retry="load" />
    <LoadingPart v-if="!full && !problem" />
    <template v-if="full">
      <ParcelDraft v-if="draft" :full="full" :reload="load" @changed="load" />
      <ParcelLive v-else :full="full" :reload="load" @changed="load" />
      <SharingDialog v-if="sharing" :id="full.parcel.id" of="parcel" @saved="shared" @close="sharing = false" />
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
