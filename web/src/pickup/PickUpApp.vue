<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import LanguageChoice from '../light/LanguageChoice.vue'
import PasscodeForm from '../light/PasscodeForm.vue'
import { longDayAndTime, placeOf, sizeWords } from '../light/said'
import OfficeFoot from '../light/OfficeFoot.vue'
import OfficeMark from '../light/OfficeMark.vue'
import { ownZone } from '../shared/time'
import { speak, text } from '../text/pickup'
import FileRow from './FileRow.vue'
import { usePickUp, type OfferedFile } from './use-pick-up'

/** How long after a download began the page asks what was taken. */
const LOOK_AGAIN_MILLISECONDS = [1_500, 6_000]
const { page, problem, passcodeNeeded, begin, load, refresh, more, unlock, addresses } = usePickUp()
const chosen = ref<Set<number>>(new Set())
const failed = ref(false)

const most = computed(() => page.value?.mostPickUps ?? null)
const elsewhere = computed(() => page.value !== undefined && page.value.zone !== ownZone())
const single = computed(() => (page.value?.count === 1 ? page.value.files[0] : undefined))
const free = (file: OfferedFile) => !file.gone && (most.value === null || file.taken < most.value)
const choosable = computed(() => page.value?.files.filter(free) ?? [])
const picked = computed(() => page.value?.files.filter((file) => chosen.value.has(file.number) && free(file)) ?? [])
/** All of them can be taken together only while each of them can. */
const whole = computed(() => page.value !== undefined && page.value.files.every(free))
const someHref = computed(() => addresses.some(picked.value.map((file) => file.number)))
const allTaken = computed(() => page.value !== undefined && page.value.person !== null && page.value.files.length === page.value.count && page.value.files.every((file) => file.taken > 0 || file.gone))
const total = (files: OfferedFile[]) => sizeWords(files.reduce((sum, file) => sum + file.bytes, 0))

function choose(file: OfferedFile, on: boolean) {
  const next = new Set(chosen.value)
  if (on) next.add(file.number)
  else next.delete(file.number)
  chosen.value = next
}

function chooseAll() {
  chosen.value = picked.value.length === choosable.value.length ? new Set() : new Set(choosable.value.map((file) => file.number))
}

/** A download that began is the browser's; what was taken is asked a little later. */
function began() {
  for (const wait of LOOK_AGAIN_MILLISECONDS) setTimeout(() => void refresh(), wait)
}

async function showMore() {
  failed.value = false
  await more().catch(() => (failed.value = true))
}

onMounted(begin)
</script>

<template>
  <main>
    <div class="top"><LanguageChoice :label="text.language" :speak="speak" /></div>
    <PasscodeForm v-if="passcodeNeeded && !page" :unlock="unlock" :text="text" />

    <section v-else-if="problem && (!page || problem.status !== 0)" class="refusal">
      <OfficeMark />
      <h1>{{ problem.status === 0 ? text.unreachable : problem.title }}</h1>
      <p v-if="problem.status !== 0">{{ problem.detail }}</p>
      <button v-if="problem.status === 0 || problem.status >= 500 || problem.status === 429" class="button" type="button" @click="load">{{ text.retry }}</button>
    </section>

    <p v-else-if="!page" class="quiet" role="status">{{ text.loading }}</p>

    <template v-else>
      <header>
        <p class="office"><OfficeMark /> <span>{{ text.hands(page.office) }}</span></p>
        <h1 dir="auto">{{ page.title }}</h1>
        <p v-if="page.person" class="for">{{ text.forPerson(page.person) }}</p>
        <p v-if="page.message" class="message" dir="auto">{{ page.message }}</p>
        <p class="quiet">{{ text.by(page.by, page.office) }}</p>
        <div class="until">
          <p>{{ text.until }} <strong>{{ longDayAndTime(page.until, page.zone) }}</strong> <span class="quiet">({{ text.zone(placeOf(page.zone)) }})</span></p>
          <p v-if="elsewhere" class="quiet">{{ text.yourTime(longDayAndTime(page.until)) }} ({{ text.zone(placeOf(ownZone())) }})</p>
          <p v-if="most !== null" class="quiet">{{ text.limited(most) }}</p>
        </div>
      </header>

      <p v-if="allTaken" class="thanks" role="status">{{ text.allTaken }}</p>
      <section class="parcel" :aria-label="text.files(page.count)">
        <div class="knot">
          <h2>{{ text.files(page.count) }} <span class="quiet">{{ sizeWords(page.bytes) }}</span></h2>
          <button v-if="choosable.length > 1" class="button plain small" type="button" @click="chooseAll">{{ picked.length === choosable.length ? text.chooseNone : text.chooseAll }}</button>
        </div>
        <ul>
          <FileRow
            v-for="file in page.files"
            :key="file.number"
            :file="file"
            :most="most"
            :choosing="page.count > 1"
            :chosen="chosen.has(file.number)"
            :href="addresses.one(file)"
            :look="addresses.look(file)"
            @choose="(on) => choose(file, on)"
            @take="began"
          />
        </ul>
        <button v-if="page.files.length < page.count" class="button" type="button" @click="showMore">{{ text.more(page.count - page.files.length) }}</button>
        <p v-if="failed" class="error" role="alert">{{ text.unreachable }}</p>
      </section>

      <details class="sums">
        <summary>{{ text.sums }}</summary>
        <p class="quiet">{{ text.sumsNote }}</p>
        <dl>
          <template v-for="file in page.files" :key="file.number">
            <dt><bdi>{{ file.name }}</bdi></dt>
            <dd>{{ file.sha256 }}</dd>
          </template>
        </dl>
      </details>
      <p class="quiet">{{ text.breaks }} <template v-if="page.person">{{ text.private }}</template></p>

      <footer>
        <p v-if="picked.length > 0 && !someHref" class="error" role="alert">{{ text.tooMany }}</p>
        <a v-if="single && free(single)" class="button primary wide" :href="addresses.all" download @click="began">{{ text.takeOne(sizeWords(single.bytes)) }}</a>
        <a v-else-if="picked.length > 0 && someHref" class="button primary wide" :href="picked.length === 1 ? addresses.one(picked[0]!) : someHref" download @click="began">{{ text.takeChosen(picked.length, total(picked)) }}</a>
        <a v-else-if="page.count > 1 && whole && picked.length === 0" class="button primary wide" :href="addresses.all" download @click="began">{{ text.takeAll(page.count, sizeWords(page.bytes)) }}</a>
      </footer>
      <OfficeFoot />
    </template>
  </main>
</template>

<style scoped>
main {
  max-width: 680px;
  margin: 0 auto;
  padding: 20px 16px 64px;
}
.top {
  display: flex;
  margin-bottom: 8px;
}
.refusal {
  display: grid;
  gap: 14px;
  justify-items: start;
  padding-top: 12vh;
}
.office {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 14px;
  color: var(--oak);
}
h1 {
  font-size: 28px;
  overflow-wrap: anywhere;
}
.for {
  margin-top: 4px;
  font-weight: 600;
}
.message {
  margin: 12px 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.until {
  margin: 18px 0 20px;
  padding-block: 10px;
  padding-inline: 14px 0;
  border-inline-start: 4px solid var(--moss);
}
.thanks {
  margin-bottom: 16px;
  padding: 10px 14px;
  border-inline-start: 4px solid var(--leaf);
  background: var(--leaf-tint);
}
/* Tied with twine: two threads across the top, and one down the side. */
.parcel {
  position: relative;
  margin-bottom: 16px;
  padding: 14px 16px 8px 34px;
  border: 1px solid var(--line);
  border-radius: var(--corner);
  background: var(--card);
}
.parcel::before {
  content: '';
  position: absolute;
  inset-block: 0;
  inset-inline-start: 14px;
  width: 5px;
  border-inline: 1px dashed var(--oak);
}
[dir='rtl'] .parcel {
  padding: 14px 34px 8px 16px;
}
.knot {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: baseline;
  justify-content: space-between;
  padding-bottom: 6px;
  border-bottom: 3px double var(--oak);
}
h2 {
  font-size: 19px;
}
h2 .quiet {
  font: 400 15px var(--text);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.sums {
  margin-bottom: 12px;
}
.sums summary {
  cursor: pointer;
}
dl {
  margin: 8px 0;
}
dt {
  font-size: 15px;
  overflow-wrap: anywhere;
}
dd {
  margin: 0 0 8px;
  direction: ltr;
  text-align: start;
  font-family: var(--mono);
  font-size: 13px;
  overflow-wrap: anywhere;
}
/* What takes everything stays at the bottom edge, wherever one is on the page. */
footer {
  position: sticky;
  bottom: 0;
  display: grid;
  gap: 6px;
  margin: 22px -16px 0;
  padding: 10px 16px;
  background: var(--paper);
}
.wide {
  width: 100%;
  min-height: 52px;
  font-size: 18px;
}
</style>

<style>
html {
  scroll-padding-bottom: 110px;
}
</style>
