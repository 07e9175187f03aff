<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type LetterState, type ListedLetter } from '../../../api/desk'
import { text } from '../../../text/desk'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { stateWords } from './letter-words'
import { sayProblem } from '../../say'
import { useRead } from '../../queries'
import { dayAndTime } from '../../../shared/time'
import LetterSheet from './LetterSheet.vue'
import PostTabs from './PostTabs.vue'

/** Every letter: to whom, where it is, and beside the list what it says. */
const t = text.post
const WAIT_MILLISECONDS = 400
const route = useRoute()
const router = useRouter()
const find = ref(typeof route.query.find === 'string' ? route.query.find : '')
const state = computed(() => (typeof route.query.state === 'string' && route.query.state in t.lists ? (route.query.state as LetterState) : undefined))
/** What did not arrive, or perhaps did not, is one list. */
const inList = (key: string): LetterState[] => (key === 'FAILED' ? ['FAILED', 'BOUNCED', 'UNCERTAIN'] : [key as LetterState])
const states = computed(() => state.value && inList(state.value))
const round = computed(() => (route.query.round ? Number(route.query.round) : undefined))
const shown = computed(() => (route.query.letter ? Number(route.query.letter) : undefined))
const words = refDebounced(find, WAIT_MILLISECONDS)
const { value: first, problem, load } = useRead(
  computed(() => ['letters', state.value, words.value.trim(), round.value]),
  () => desk.letters(states.value, words.value.trim(), round.value, undefined),
  { on: (event) => event.type !== 'contact' },
)
const older = ref<ListedLetter[]>([])
const page = computed(() => first.value && { ...first.value, letters: [...first.value.letters, ...older.value] })
watch(first, () => (older.value = []))
const total = computed(() => Object.values(page.value?.counts ?? {}).reduce((sum: number, n) => sum + Number(n), 0))
const aboutWords = (letter: ListedLetter) => letter.parcel ?? letter.about.map((one) => one.round).join(', ')
const roundTitle = computed(() => page.value?.letters.flatMap((letter) => letter.about).find((one) => one.roundId === round.value)?.round)

function go(query: Record<string, string | number | undefined>) {
  void router.replace({ query: { ...route.query, ...query } })
}

async function more() {
  try {
    older.value.push(...(await desk.letters(states.value, words.value.trim(), round.value, page.value!.letters.at(-1)!.id)).letters)
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header>
      <div>
        <h1>{{ t.title }}</h1>
        <p v-if="round" class="quiet"><RouterLink :to="{ name: 'round', params: { id: round } }">{{ roundTitle ?? text.rounds.round }}</RouterLink></p>
      </div>
    </header>
    <PostTabs />
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!page && !problem" />
    <template v-if="page">
      <div class="tools">
        <div class="chips" role="group" :aria-label="t.filters">
          <ElButton :aria-pressed="!state && !round" @click="go({ state: undefined, round: undefined })">{{ t.all }}<span>{{ total }}</span></ElButton>
          <ElButton v-for="(label, key) in t.lists" :key="key" :aria-pressed="state === key" @click="go({ state: state === key ? undefined : String(key) })">
            {{ label }}<span>{{ inList(String(key)).reduce((sum, one) => sum + Number(page!.counts[one] ?? 0), 0) }}</span>
          </ElButton>
        </div>
        <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      </div>
      <EmptyPart v-if="page.letters.length === 0" :words="total === 0 ? t.none : t.noneFound" />
      <div v-else class="columns">
        <div>
          <table class="plain">
            <thead>
              <tr>
                <th scope="col">{{ t.to }}</th>
                <th scope="col">{{ t.letter }}</th>
                <th scope="col">{{ t.state }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="letter in page.letters" :key="letter.id" :class="[letter.state, { here: letter.id === shown }]">
                <td><ElButton class="name" type="primary" link :aria-pressed="letter.id === shown" @click="go({ letter: letter.id })">{{ letter.name }}</ElButton></td>
                <td>
                  {{ t.kinds[letter.kind] }} <ElTooltip :content="aboutWords(letter)" :show-after="300"><span class="quiet about">{{ aboutWords(letter) }}</span></ElTooltip>
                </td>
                <td class="state">{{ stateWords(letter) }}<span class="quiet">{{ letter.tries > 1 ? t.tries(letter.tries) : '' }}</span><span v-if="letter.openedAt" class="quiet line">{{ t.opened(dayAndTime(letter.openedAt)) }}</span></td>
              </tr>
            </tbody>
          </table>
          <ElButton v-if="page.more" class="more" @click="more">{{ t.more }}</ElButton>
        </div>
        <LetterSheet v-if="shown" :key="shown" :letter-id="shown" :changes="page" @changed="load" />
        <p v-else class="quiet choose">{{ t.choose }}</p>
      </div>
    </template>
  </div>
</template>

<style scoped src="./post.css"></style>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 14px;
}
.find {
  width: 260px;
}
th:first-child {
  width: 25%;
}
th:nth-child(2) {
  width: 45%;
}
.name {
  font-weight: 600;
}
.about {
  display: block;
  overflow: hidden;
  font-size: 15px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.FAILED .state,
.BOUNCED .state,
.UNCERTAIN .state {
  color: var(--rowan);
}
.WAITING .state {
  color: var(--acorn-text);
}
</style>
