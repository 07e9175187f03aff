<script setup lang="ts">
import { computed, watch } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { copy } from '../../copy'
import { dayAndTime } from '../../../shared/time'
import { stateWords } from './letter-words'
import MendAddress from './MendAddress.vue'
import { say, sayProblem } from '../../say'
import { useRead } from '../../queries'

/** One letter to read, to copy, to stop or to send after all. */
const props = defineProps<{ letterId: number; changes: unknown }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.post
const { value: full, problem, load } = useRead(['letter', props.letterId], () => desk.letter(props.letterId), { on: (event) => event.type === 'letter' })
watch(() => props.changes, load)

async function act(work: () => Promise<void>, words: string) {
  try {
    await work()
    say(words)
  } catch (error) {
    sayProblem(error)
  }
  await load()
  emit('changed')
}

const undelivered = computed(() => full.value?.letter.state === 'FAILED' || full.value?.letter.state === 'BOUNCED')

async function mended() {
  say(t.mendedNow)
  await load()
  emit('changed')
}

async function copyText() {
  if (await copy(`${full.value!.subject}\n\n${full.value!.body}`)) say(t.copied)
}
</script>

<template>
  <aside class="sheet" :aria-label="t.letter">
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <template v-if="full">
      <p class="quiet">
        <RouterLink :to="{ name: 'contact', params: { id: full.letter.contactId } }">{{ full.letter.name }}</RouterLink> &lt;{{ full.letter.address }}&gt;
      </p>
      <p class="quiet">{{ stateWords(full.letter) }}, {{ full.letter.by ? t.by(full.letter.by) : t.byPlan }}</p>
      <p v-if="full.letter.openedAt" class="quiet">{{ t.opened(dayAndTime(full.letter.openedAt)) }}</p>
      <p v-if="full.letter.state === 'WAITING'" class="note">{{ t.asOfNow }}</p>
      <p v-if="full.letter.state === 'UNCERTAIN'" class="note">{{ t.uncertain }}</p>
      <MendAddress v-if="undelivered" :letter="full.letter" @mended="mended" />
      <article>
        <h2 :lang="full.language" dir="auto">{{ full.subject }}</h2>
        <p class="body" :lang="full.language" :dir="full.language === 'ar' ? 'rtl' : 'ltr'">{{ full.body }}</p>
      </article>
      <div class="actions">
        <ElButton v-if="full.letter.state === 'WAITING'" @click="act(() => desk.stopLetter(letterId), t.stopped)">{{ t.stop }}</ElButton>
        <ElButton v-if="full.letter.state === 'UNCERTAIN'" type="primary" @click="act(() => desk.letterArrived(letterId), t.arrivedNow)">{{ t.arrived }}</ElButton>
        <ElButton v-if="undelivered || full.letter.state === 'STOPPED' || full.letter.state === 'UNCERTAIN'" @click="act(() => desk.letterAgain(letterId), t.againNow)">{{ t.again }}</ElButton>
        <ElButton @click="copyText">{{ t.copyText }}</ElButton>
        <RouterLink v-if="full.letter.parcelId" class="button" :to="{ name: 'parcel', params: { id: full.letter.parcelId } }">{{ t.toBoard(full.letter.parcel ?? '') }}</RouterLink>
        <RouterLink v-for="one in full.letter.about" :key="one.basketId" class="button" :to="{ name: 'round', params: { id: one.roundId }, query: { basket: one.basketId } }">{{ t.toBoard(one.round) }}</RouterLink>
      </div>
    </template>
    <LoadingPart v-else-if="!problem" />
  </aside>
</template>

<style scoped src="./post.css"></style>

<style scoped>
.sheet {
  position: sticky;
  top: 12px;
}
</style>
