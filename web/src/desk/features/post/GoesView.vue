<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import { choices } from '../../fields/choices'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { dayAndTime } from '../../../shared/time'
import { useRead } from '../../queries'
import GoesSheet from './GoesSheet.vue'
import PostTabs from './PostTabs.vue'

/** The letters that will go in the next weeks, by days: to how many, and who is left out and why. */
const t = text.goes
const route = useRoute()
const router = useRouter()
const span = ref('28')
const round = computed(() => (route.query.round ? Number(route.query.round) : null))
const shown = computed(() => (route.query.at ? { round: Number(route.query.of), at: String(route.query.at) } : undefined))
const { value: view, problem, load } = useRead(computed(() => ['outlook', span.value, round.value]), () => desk.outlook(Number(span.value), round.value ?? undefined), { on: () => true })
const { value: rounds } = useRead(['round-heads'], desk.rounds, { on: (event) => event.type === 'round' })
const offered = computed(() => [{ value: null as number | null, label: t.round }, ...(rounds.value ?? []).filter((one) => one.state === 'GATHERING').map((one) => ({ value: one.id as number | null, label: one.title }))])

const day = (date: string) => new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' }).format(new Date(`${date}T12:00:00Z`))
const weekend = (date: string) => [0, 6].includes(new Date(`${date}T12:00:00Z`).getUTCDay())
const time = (at: string) => dayAndTime(at).split(' ').pop()
const total = (counts: Record<string, number>) => Object.values(counts).reduce((sum, n) => sum + n, 0)
const reasons = (counts: Record<string, number>) => Object.entries(counts).map(([reason, n]) => `${text.post.reasons[reason] ?? reason} (${n})`).join('; ')
const isShown = (one: Schemas['OutlookLetters']) => shown.value?.round === one.roundId && shown.value.at === one.at

function go(query: Record<string, string | number | undefined>) {
  void router.replace({ query: { ...route.query, ...query } })
}
</script>

<template>
  <div class="page">
    <header><h1>{{ text.post.title }}</h1></header>
    <PostTabs />
    <p class="quiet intro">{{ t.intro }}</p>
    <div class="tools">
      <ChoiceField v-model="span" :label="t.weeks" :choices="choices<string>(t.spans)" />
      <ChoiceField :model-value="round" :label="t.round" :choices="offered" filterable @update:model-value="(one) => go({ round: one ?? undefined, at: undefined, of: undefined })" />
    </div>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!view && !problem" />
    <template v-if="view">
      <EmptyPart v-if="view.days.length === 0 && view.held.length === 0" :words="t.none" />
      <div v-else class="columns">
        <div>
          <section v-if="view.held.length > 0" class="held">
            <h2>{{ t.held }}</h2>
            <p class="quiet">{{ t.heldHelp }}</p>
            <ElButton v-for="one in view.held" :key="one.at + one.roundId" class="letter" :aria-pressed="isShown(one)" @click="go({ at: one.at, of: one.roundId })">
              <span class="time">{{ dayAndTime(one.at) }}</span> <span>{{ text.post.kinds[one.kind] }} <span class="quiet">{{ one.round }}</span></span> <span class="count">{{ t.leftOut(total(one.leftOut as Record<string, number>)) }}</span>
            </ElButton>
          </section>
          <ol>
            <li v-for="one in view.days" :key="one.date" :class="{ weekend: weekend(one.date) }">
              <h2>{{ day(one.date) }}</h2>
              <div>
                <ElButton v-for="letter in one.letters" :key="letter.at + letter.roundId + letter.kind" class="letter" :class="{ none: letter.goes + letter.along === 0 }" :aria-pressed="isShown(letter)" @click="go({ at: letter.at, of: letter.roundId })">
                  <span class="time">{{ time(letter.at) }}</span>
                  <span class="what">{{ text.post.kinds[letter.kind] }} <span class="quiet">{{ letter.round }}</span></span>
                  <span class="count">{{ letter.goes > 0 ? t.goes(letter.goes) : letter.along > 0 ? '' : t.nobody }}</span>
                  <span v-if="letter.along > 0" class="quiet more">{{ t.along(letter.along) }}</span>
                  <span v-if="letter.moved > 0" class="quiet more">{{ t.moved(letter.moved) }}</span>
                  <span v-if="total(letter.leftOut as Record<string, number>) > 0" class="quiet more">{{ t.leftOut(total(letter.leftOut as Record<string, number>)) }}: {{ reasons(letter.leftOut as Record<string, number>) }}</span>
                </ElButton>
              </div>
            </li>
          </ol>
        </div>
        <GoesSheet v-if="shown" :key="`${shown.round} ${shown.at}`" :round="shown.round" :at="shown.at" :held="view.held.some(isShown)" @changed="load" @gone="go({ at: undefined, of: undefined })" />
        <p v-else class="quiet choose">{{ t.choose }}</p>
      </div>
    </template>
  </div>
</template>

<style scoped src="./post.css"></style>

<style scoped>
.letter .more {
  grid-column: 2 / -1;
  margin-top: 0;
  font-size: 15px;
}
.tools {
  display: flex;
  gap: 12px;
  margin: 12px 0 16px;
}
.tools > * {
  width: 260px;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 12px;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
li h2 {
  margin: 8px 0 0;
  font-size: 17px;
}
.weekend h2 {
  color: var(--slate);
}
.letter {
  display: flex;
  width: 100%;
  height: auto;
  margin: 0 0 6px;
  padding: 8px 12px;
  text-align: left;
  white-space: normal;
}
.letter :deep(> span) {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 2px 14px;
  width: 100%;
  line-height: 1.35;
}
.letter[aria-pressed='true'] {
  background: var(--leaf-tint);
  box-shadow: inset 4px 0 var(--leaf);
}
.time {
  font-variant-numeric: tabular-nums;
  font-weight: 600;
}
.count {
  font-weight: 600;
}
.none .count {
  color: var(--slate);
  font-weight: 400;
}
.held {
  margin-bottom: 18px;
  padding-left: 12px;
  border-left: 4px solid var(--acorn);
}
.held h2 {
  font-size: 18px;
}
</style>
