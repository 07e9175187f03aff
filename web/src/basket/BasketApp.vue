<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, onMounted, reactive, ref, watch, type Component } from 'vue'
import { ApiProblem } from '../api/problem'
import { speak, speakLater, text } from '../text/sender'
import OfficeFoot from '../light/OfficeFoot.vue'
import OfficeMark from '../light/OfficeMark.vue'
import { ownZone } from '../shared/time'
import { filesOfDrop } from './choosing'
import ItemCard from './ItemCard.vue'
import LanguageChoice from '../light/LanguageChoice.vue'
import PasscodeForm from '../light/PasscodeForm.vue'
import { deadlineWords, longDayAndTime, sizeWords, timeLeftWords, zoneWords } from './said'
import { usePage, type PageItem } from './use-page'
import { useSending } from './use-sending'

const AGAIN_MILLISECONDS = 3_000
/** A part that comes after the page, with its texts. On a line that breaks it is asked for again and again. */
const later = <C extends Component>(load: () => Promise<{ default: C }>) =>
  defineAsyncComponent({ loader: async () => (await Promise.all([load(), speakLater()]))[0], onError: (_, again) => void setTimeout(again, AGAIN_MILLISECONDS) })
/** Is there long before anybody needs it: main.ts loads it when there is nothing better to do. */
const ReceiptView = later(() => import('./ReceiptView.vue'))
/** Comes only where papers go in both directions. */
const PlacePart = later(() => import('./PlacePart.vue'))
const LONGEST_NOTE = 2_000
const touch = matchMedia('(pointer: coarse)').matches
const { rehearsal, token, page, problem, headers, passcodeNeeded, begin, load, changed, unlock, takeForm } = usePage()
const sending = useSending(token, headers, rehearsal, page)
const { chosen, notices, phase, receipt, note, waiting, online, rate, bytes, there, broken, begun, secondsLeft } = sending
const who = reactive({ name: sending.before?.name ?? '', email: sending.before?.email ?? '' })
const whoErrors = reactive({ name: '', email: '' })
const sendError = ref('')
const nothingChosen = ref(false)
const restored = ref(0)
const over = ref(false)
/** Somebody typed here before, perhaps somebody else who shares this computer. */
const cameBack = ref(!!(sending.before?.name || sending.before?.email || sending.before?.note))

/** What was said of the files chosen is no longer true when they change. */
watch(() => [chosen.length, broken.value], () => {
  sendError.value = ''
  nothingChosen.value = false
})
watch([() => who.name, () => who.email, note], () => sending.rememberTyped({ ...who }))

async function getForm(item: PageItem) {
  try {
    await takeForm(item)
  } catch {
    notices[item.number] = text.formFailed
  }
}

const elsewhere = computed(() => page.value !== undefined && page.value.zone !== ownZone())
const busy = computed(() => phase.value === 'sending' || phase.value === 'paused')
const open = computed(() => page.value?.items.filter((item) => !item.excused) ?? [])
/** What takes files still, for those put on the page as a whole. */
const taking = computed(() => open.value.filter((item) => item.arrived < item.maxFiles))
const place = computed(() => page.value?.place ?? undefined)
/** Nothing is asked of whoever only has a place here, so nothing is due. */
const due = computed(() => !place.value?.alone)
/** What is missing and needed stands first, then what was sent back or may be added, then what is done. */
const ordered = computed(() => {
  const rank = (item: PageItem) => (item.excused ? 4 : item.returnedBecause !== null ? 0 : item.done ? 3 : item.required ? 1 : 2)
  return [...(page.value?.items ?? [])].sort((a, b) => rank(a) - rank(b) || a.number - b.number)
})

/** What was under way when the page went away is here again, and goes on by itself. */
async function bringBack() {
  if (!page.value) return
  await sending.restore(page.value.items)
  restored.value = chosen.filter((one) => one.state !== 'there').length
  if (sending.before?.underWay && sending.before.submission && restored.value > 0 && !chosen.some((one) => one.state === 'pick')) await send()
}

async function unlocked(passcode: string) {
  await unlock(passcode)
  await bringBack()
}

onMounted(async () => {
  await begin(sending.before?.submission ?? '')
  await bringBack()
})

async function send() {
  sendError.value = ''
  restored.value = 0
  cameBack.value = false
  Object.assign(whoErrors, { name: '', email: '' })
  nothingChosen.value = chosen.length === 0
  if (nothingChosen.value) return
  if (chosen.some((one) => one.problem && (one.state === 'chosen' || one.state === 'pick'))) {
    sendError.value = text.badFiles
    return
  }
  try {
    await sending.send(page.value!.open ? { ...who } : undefined)
    if (receipt.value) {
      scrollTo(0, 0)
      await nextTick()
      document.querySelector<HTMLElement>('h1')?.focus()
    }
  } catch (error) {
    const refusal = error as ApiProblem
    phase.value = 'choosing'
    Object.assign(whoErrors, { name: refusal.at('name'), email: refusal.at('email') })
    if (whoErrors.name || whoErrors.email) {
      await nextTick()
      document.getElementById(whoErrors.name ? 'who-name' : 'who-email')?.focus()
    } else {
      sendError.value = refusal.status === 0 ? text.unreachable : `${refusal.title}. ${refusal.errors.map((one) => one.detail).join(' ') || refusal.detail}`
    }
  }
}

async function another() {
  sending.another()
  await load()
  scrollTo(0, 0)
}

function forgetAll() {
  sending.another()
  Object.assign(who, { name: '', email: '' })
  restored.value = 0
  cameBack.value = false
}

function pickedTogether(event: Event) {
  const input = event.target as HTMLInputElement
  void sending.addTogether(taking.value, Array.from(input.files ?? []))
  input.value = ''
}

/** Files may land anywhere on the page. */
async function dropped(event: DragEvent) {
  over.value = false
  if (event.dataTransfer && !busy.value && page.value && !receipt.value) await sending.addTogether(taking.value, await filesOfDrop(event.dataTransfer))
}
</script>

<template>
  <p v-if="rehearsal" class="rehearsal" role="status">{{ text.rehearsal }}</p>
  <main :class="{ over }" @dragover.prevent="over = taking.length > 0" @dragleave.self="over = false" @drop.prevent="dropped">
    <div class="top"><LanguageChoice :label="text.language" :speak="speak" /></div>
    <PasscodeForm v-if="passcodeNeeded && !page" :unlock="unlocked" :text="text" />

    <section v-else-if="problem && !page" class="plain">
      <OfficeMark />
      <h1>{{ problem.status === 0 ? text.unreachable : problem.title }}</h1>
      <p v-if="problem.status !== 0">{{ problem.detail }}</p>
      <ul v-if="problem.errors.length > 0">
        <li v-for="error in problem.errors" :key="error.field">{{ error.detail }}</li>
      </ul>
      <button v-if="problem.status === 0 || problem.status >= 500 || problem.status === 429" class="button" type="button" @click="load()">{{ text.retry }}</button>
    </section>

    <p v-else-if="!page" class="plain quiet">{{ text.loading }}</p>

    <ReceiptView v-else-if="receipt" :receipt="receipt" :page="page" :rehearsal="rehearsal" :left-out="sending.leftOut.value" :headers="{ 'Accept-Language': headers['Accept-Language']!, 'Oak-Submission': sending.submission() }" :address="who.email" @another="another" />

    <template v-else>
      <header>
        <p class="office"><OfficeMark /> <span>{{ due ? text.asks(page.office) : text.place(page.office) }}</span></p>
        <h1 tabindex="-1" dir="auto">{{ page.title }}</h1>
        <p v-if="page.person" class="for">{{ text.forPerson(page.person) }}</p>
        <p v-if="page.note" class="note" dir="auto">{{ page.note }}</p>
        <p class="from quiet">{{ text.askedBy(page.askedBy, page.office) }}</p>
        <div v-if="!due && page.until" class="deadline">
          <p>{{ text.openUntil }} <strong>{{ longDayAndTime(page.until, page.zone) }}</strong> <span class="quiet">({{ zoneWords(page.zone) }})</span></p>
          <p v-if="elsewhere" class="quiet">{{ text.yourTime(longDayAndTime(page.until)) }} ({{ zoneWords(ownZone()) }})</p>
        </div>
        <div v-else class="deadline" :class="{ passed: page.late }">
          <p>
            {{ text.by }} <strong>{{ deadlineWords(page) }}</strong>
            <span class="quiet"> ({{ zoneWords(page.zone) }})</span>
          </p>
          <p v-if="elsewhere" class="quiet">{{ text.yourTime(longDayAndTime(page.deadline)) }} ({{ zoneWords(ownZone()) }})</p>
          <p v-if="page.late" class="error">{{ text.passed }}</p>
        </div>
      </header>

      <PlacePart v-if="place && !rehearsal" :place="place" :page="page" :token="token" :headers="headers" :still="busy || !!receipt" :changed="() => changed(sending.submission())" @load="load(sending.submission())" />
      <h2 v-if="place && open.length > 0" class="mine">{{ text.fromYou }}</h2>
      <form v-if="!place || place.putIn" novalidate @submit.prevent="send">
        <p v-if="restored > 0 || cameBack" class="kept">
          <span role="status">{{ restored > 0 ? text.keptFrom(restored) : '' }}</span>
          <button class="button plain small" type="button" @click="forgetAll">{{ text.forget }}</button>
        </p>
        <fieldset v-if="page.open" class="who" :disabled="busy">
          <legend>{{ text.whoTitle }}</legend>
          <label for="who-name">{{ text.name }}</label>
          <p id="who-name-why" class="quiet">{{ text.whyName }}</p>
          <input id="who-name" v-model="who.name" class="input" autocomplete="name" :aria-invalid="!!whoErrors.name" aria-describedby="who-name-error who-name-why" />
          <p id="who-name-error" class="error" role="alert">{{ whoErrors.name }}</p>
          <label for="who-email">{{ text.email }}</label>
          <p id="who-email-why" class="quiet">{{ text.whyEmail }}</p>
          <input id="who-email" v-model="who.email" class="input" type="email" dir="ltr" autocomplete="email" :aria-invalid="!!whoErrors.email" aria-describedby="who-email-error who-email-why" />
          <p id="who-email-error" class="error" role="alert">{{ whoErrors.email }}</p>
        </fieldset>

        <div v-if="taking.length > 1 && !busy && taking.some((item) => !item.done)" class="together">
          <strong>{{ text.together }}</strong>
          <p class="quiet">{{ text.togetherNote }}</p>
          <label class="button">
            <input type="file" class="hidden-text" multiple :aria-label="text.chooseAll" @change="pickedTogether" />
            {{ text.chooseAll }}
          </label>
          <span v-if="!touch" class="quiet">{{ text.dropHere }}</span>
        </div>

        <ItemCard
          v-for="item in ordered"
          :key="item.number"
          :item="item"
          :items="taking"
          :chosen="chosen.filter((one) => one.item.number === item.number)"
          :notice="notices[item.number] ?? ''"
          :busy="busy"
          :stays="!due"
          :asked-by="text.askedBy(page.askedBy, page.office)"
          @add="(files) => sending.add(item, files)"
          @remove="sending.remove"
          @cancel="sending.cancel"
          @move="sending.move"
          @form="getForm(item)"
          @retry="send"
        />

        <div v-if="open.length > 0" class="word">
          <label for="sender-note">{{ text.note }}</label>
          <textarea id="sender-note" v-model="note" class="input" rows="2" dir="auto" :maxlength="LONGEST_NOTE" :disabled="busy"></textarea>
        </div>

        <footer v-if="open.length > 0">
          <!-- Read out when a file is there, not each time the speed changes. -->
          <p class="hidden-text" aria-live="polite">{{ busy ? text.sending(there, chosen.length) : chosen.length > 0 ? text.total(chosen.length, sizeWords(bytes)) : '' }}</p>
          <p v-if="busy">{{ text.sending(there, chosen.length) }}<template v-if="rate > 0 && phase === 'sending'">. {{ text.speed(sizeWords(rate), timeLeftWords(secondsLeft)) }}</template></p>
          <p v-else-if="nothingChosen" class="error" role="alert">{{ text.nothing }}</p>
          <progress v-if="busy" :value="sending.sentBytes.value" :max="bytes" :aria-label="text.sending(there, chosen.length)"></progress>
          <p v-if="!online && (busy || chosen.length > 0)" class="quiet" role="status">{{ text.offline }}</p>
          <p v-else-if="waiting" class="quiet" role="status">{{ text.retrying }}</p>
          <p v-if="!busy && begun && broken" class="error" role="alert">{{ text.keep }}</p>
          <p v-if="sendError" class="error" role="alert">{{ sendError }}</p>
          <div class="actions">
            <button v-if="!busy" class="button primary wide" type="submit">{{ begun ? text.sendRest : chosen.length > 0 ? text.sendFiles(chosen.length, sizeWords(bytes)) : text.send }}</button>
            <button v-else-if="phase === 'sending'" class="button" type="button" @click="sending.pause">{{ text.pause }}</button>
            <button v-else class="button primary" type="submit">{{ text.goOn }}</button>
          </div>
        </footer>
      </form>
      <OfficeFoot />
    </template>
  </main>
</template>

<style scoped>
main {
  max-width: 640px;
  margin: 0 auto;
  padding: 20px 16px 64px;
}
.rehearsal {
  padding: 8px 16px;
  background: var(--oak);
  color: #fff;
  text-align: center;
}
.top {
  display: flex;
  margin-bottom: 8px;
}
main.over {
  outline: 3px dashed var(--leaf);
  outline-offset: -6px;
}
.kept {
  margin-bottom: 14px;
  padding: 8px 12px;
  border-inline-start: 4px solid var(--acorn);
  background: var(--tint);
}
.together {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-bottom: 16px;
}
.together .button {
  position: relative;
}
.together .button:focus-within {
  outline: 3px solid var(--oak);
  outline-offset: 2px;
}
.word {
  display: grid;
  gap: 4px;
}
.plain {
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
  outline: none;
}
.for {
  margin-top: 4px;
  font-weight: 600;
}
.note {
  margin-top: 12px;
  white-space: pre-line;
}
.from {
  margin-top: 4px;
}
.deadline {
  margin: 18px 0 24px;
  padding-block: 10px;
  padding-inline: 14px 0;
  border-inline-start: 4px solid var(--moss);
}
.deadline.passed {
  border-color: var(--rowan);
}
.mine {
  margin: 22px 0 10px;
  font-size: 20px;
}
.who {
  margin: 0 0 16px;
  padding: 14px 16px;
  border: 1px solid var(--line);
  border-radius: var(--corner);
  background: var(--card);
}
.who legend {
  padding: 0 6px;
  font: 600 18px var(--heading);
}
.who label {
  display: block;
  margin-top: 10px;
}
/* What sends stays at the bottom edge, wherever one is on the page. */
footer {
  position: sticky;
  bottom: 0;
  display: grid;
  gap: 6px;
  margin: 22px -16px 0;
  padding: 10px 16px;
  border-top: 1px solid var(--line);
  background: var(--paper);
}
progress {
  width: 100%;
  height: 12px;
  accent-color: var(--leaf);
}
.wide {
  width: 100%;
  min-height: 52px;
  font-size: 18px;
}
</style>

<style>
/* Whatever gets the keyboard stands above what sends. */
html {
  scroll-padding-bottom: 130px;
}
</style>
