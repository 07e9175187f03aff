<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { light } from '../api/light'
import type { ApiProblem } from '../api/problem'
import { text } from '../text/sender'
import PlaceRow from './PlaceRow.vue'
import type { ExchangePlace, Page } from './use-page'

/** The part of the page on which papers go in the other direction: the invitation, and what lies there for whoever reads it. It shows changes by itself. */
const props = defineProps<{ place: ExchangePlace; page: Page; token: string; headers: Record<string, string>; still: boolean; changed: () => Promise<boolean> }>()
const emit = defineEmits<{ load: [] }>()
const LOOK_EVERY_MILLISECONDS = 5_000
/** How long after a download began the page asks what was taken. */
const LOOK_AGAIN_MILLISECONDS = 1_500
const busy = ref(false)
const refused = ref<ApiProblem>()
const said = ref('')
const offers = computed(() => [props.place.offersPutIn && text.mayPutIn, props.place.offersSee && text.maySee, props.place.offersTakeAway && text.mayTake].filter((one): one is string => !!one))
let timer = 0

async function answer(accepts: boolean) {
  busy.value = true
  refused.value = undefined
  try {
    await light('post', '/api/place/answer', { body: { accepts }, headers: props.headers })
  } catch (error) {
    refused.value = error as ApiProblem
  }
  busy.value = false
  emit('load')
}

/** Asks whether something changed, while somebody can see it and nothing is being sent. Whatever goes wrong, it is asked again later. */
async function look() {
  if (!document.hidden && !props.still && (await props.changed().catch(() => false))) {
    said.value = text.changedNow
    emit('load')
  }
}

function began() {
  setTimeout(() => void look(), LOOK_AGAIN_MILLISECONDS)
}

/** Where files are taken away no header can go along, so what stands for a passcode becomes a cookie. */
function carry() {
  if (props.headers['Oak-Ticket']) void light('post', '/api/place/ticket', { headers: props.headers }).catch(() => {})
}

watch(() => props.headers['Oak-Ticket'], carry)
onMounted(() => {
  carry()
  timer = window.setInterval(() => void look(), LOOK_EVERY_MILLISECONDS)
  document.addEventListener('visibilitychange', look)
})
onBeforeUnmount(() => {
  clearInterval(timer)
  document.removeEventListener('visibilitychange', look)
})
</script>

<template>
  <p class="hidden-text" role="status">{{ said }}</p>
  <section v-if="place.asks" class="invitation" :aria-label="text.place(page.office)">
    <p>{{ place.declined ? text.declined : text.invited(page.office) }}</p>
    <ul v-if="!place.declined"><li v-for="offer in offers" :key="offer">{{ offer }}</li></ul>
    <p v-if="refused" class="error" role="alert">{{ refused.status === 0 ? text.unreachable : `${refused.title}. ${refused.detail}` }}</p>
    <div class="ways">
      <button class="button primary" type="button" :disabled="busy" @click="answer(true)">{{ text.acceptInvitation }}</button>
      <button v-if="!place.declined" class="button" type="button" :disabled="busy" @click="answer(false)">{{ text.declineInvitation }}</button>
    </div>
  </section>
  <section v-else-if="place.see || place.takeAway" class="theirs" :aria-label="text.forYou">
    <header>
      <h2>{{ text.forYou }}</h2>
      <a v-if="place.takeAway && place.files.length > 1" class="button small" :href="`/x/${token}/all`" download @click="began">{{ text.takeAll }}</a>
    </header>
    <p v-if="place.files.length === 0" class="quiet">{{ text.forYouNone }}</p>
    <ul v-else>
      <PlaceRow v-for="file in place.files" :key="file.number" :file="file" :take-away="place.takeAway" :token="token" @take="began" />
    </ul>
  </section>
</template>

<style scoped>
.invitation,
.theirs {
  display: grid;
  gap: 10px;
  margin-bottom: 18px;
  padding: 16px;
  border: 1px solid var(--line);
  border-top: 4px solid var(--oak);
  border-radius: var(--corner);
  background: var(--card);
}
.theirs header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
}
h2 {
  font-size: 20px;
}
.invitation ul {
  margin: 0;
  padding-inline-start: 22px;
}
.theirs ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
</style>
