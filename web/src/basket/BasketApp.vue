<script setup lang="ts">
import { computed, nextTick, onMounted, reactive, ref, watch } from 'vue'
import { ApiProblem } from '../api/problem'
import { text } from '../text/basket'
import OakMark from '../shared/OakMark.vue'
import { sizeWords } from '../shared/size'
import { deadlineWords, longDayAndTime, ownZone, zoneWords } from '../shared/time'
import ItemCard from './ItemCard.vue'
import PasscodeForm from './PasscodeForm.vue'
import ReceiptView from './ReceiptView.vue'
import { usePage, type PageItem } from './use-page'
import { useSending } from './use-sending'

const { rehearsal, page, problem, headers, passcodeNeeded, load, unlock, takeForm } = usePage()
const sending = useSending(headers, rehearsal)
const { chosen, notices, phase, receipt, retrying, rate, bytes, there, broken, begun, secondsLeft } = sending
const who = reactive({ name: sending.declaredBefore?.name ?? '', email: sending.declaredBefore?.email ?? '' })
const whoErrors = reactive({ name: '', email: '' })
const sendError = ref('')
const nothingChosen = ref(false)

/** What was said of the files chosen is no longer true when they change. */
watch(() => [chosen.length, broken.value], () => {
  sendError.value = ''
  nothingChosen.value = false
})

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

onMounted(load)

async function send() {
  sendError.value = ''
  Object.assign(whoErrors, { name: '', email: '' })
  nothingChosen.value = chosen.length === 0
  if (nothingChosen.value) return
  if (chosen.some((one) => one.problem && one.state === 'chosen')) {
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
      sendError.value = `${refusal.title}. ${refusal.detail}`
    }
  }
}

async function another() {
  sending.another()
  await load()
  scrollTo(0, 0)
}
</script>

<template>
  <p v-if="rehearsal" class="rehearsal" role="status">{{ text.rehearsal }}</p>
  <main>
    <PasscodeForm v-if="passcodeNeeded && !page" :unlock="unlock" />

    <section v-else-if="problem && !page" class="plain">
      <OakMark :size="44" />
      <h1>{{ problem.title }}</h1>
      <p>{{ problem.detail }}</p>
      <ul v-if="problem.errors.length > 0">
        <li v-for="error in problem.errors" :key="error.field">{{ error.detail }}</li>
      </ul>
      <button v-if="problem.status === 0 || problem.status >= 500 || problem.status === 429" class="button" type="button" @click="load">{{ text.retry }}</button>
    </section>

    <p v-else-if="!page" class="plain quiet">{{ text.loading }}</p>

    <ReceiptView v-else-if="receipt" :receipt="receipt" :page="page" :rehearsal="rehearsal" @another="another" />

    <template v-else>
      <header>
        <p class="office"><OakMark :size="30" /> <span>{{ text.asks(page.office) }}</span></p>
        <h1 tabindex="-1">{{ page.title }}</h1>
        <p v-if="page.person" class="for">{{ text.forPerson(page.person) }}</p>
        <p v-if="page.note" class="note">{{ page.note }}</p>
        <p class="from quiet">{{ text.askedBy(page.askedBy, page.office) }}</p>
        <div class="deadline" :class="{ passed: page.late }">
          <p>
            {{ text.by }} <strong>{{ deadlineWords(page.deadline, page.zone, page.dateOnly) }}</strong>
            <span class="quiet"> ({{ zoneWords(page.zone) }})</span>
          </p>
          <p v-if="elsewhere" class="quiet">{{ text.yourTime(longDayAndTime(page.deadline)) }} ({{ zoneWords(ownZone()) }})</p>
          <p v-if="page.late" class="error">{{ text.passed }}</p>
        </div>
      </header>

      <form novalidate @submit.prevent="send">
        <fieldset v-if="page.open" class="who" :disabled="busy">
          <legend>{{ text.whoTitle }}</legend>
          <p class="quiet">{{ text.whoNote }}</p>
          <label for="who-name">{{ text.name }}</label>
          <input id="who-name" v-model="who.name" class="input" autocomplete="name" :aria-invalid="!!whoErrors.name" aria-describedby="who-name-error" />
          <p id="who-name-error" class="error" role="alert">{{ whoErrors.name }}</p>
          <label for="who-email">{{ text.email }}</label>
          <input id="who-email" v-model="who.email" class="input" type="email" autocomplete="email" :aria-invalid="!!whoErrors.email" aria-describedby="who-email-error" />
          <p id="who-email-error" class="error" role="alert">{{ whoErrors.email }}</p>
        </fieldset>

        <ItemCard
          v-for="item in page.items"
          :key="item.number"
          :item="item"
          :chosen="chosen.filter((one) => one.item.number === item.number)"
          :notice="notices[item.number] ?? ''"
          :busy="busy"
          :asked-by="text.askedBy(page.askedBy, page.office)"
          @add="(files) => sending.add(item, files)"
          @remove="sending.remove"
          @cancel="sending.cancel"
          @form="getForm(item)"
          @retry="send"
        />

        <footer v-if="open.length > 0">
          <p aria-live="polite">
            <template v-if="busy">{{ text.sending(there, chosen.length) }}<template v-if="rate > 0 && phase === 'sending'">. {{ text.speed(sizeWords(rate), text.seconds(secondsLeft)) }}</template></template>
            <span v-else-if="chosen.length > 0" class="hidden-text">{{ text.total(chosen.length, sizeWords(bytes)) }}</span>
            <template v-else-if="nothingChosen"><span class="error">{{ text.nothing }}</span></template>
          </p>
          <progress v-if="busy" :value="sending.sentBytes.value" :max="bytes" :aria-label="text.sending(there, chosen.length)"></progress>
          <p v-if="retrying" class="quiet" role="status">{{ text.retrying }}</p>
          <p v-if="!busy && begun && broken" class="error" role="alert">{{ text.keep }}</p>
          <p v-if="sendError" class="error" role="alert">{{ sendError }}</p>
          <div class="actions">
            <button v-if="!busy" class="button primary wide" type="submit">{{ begun ? text.sendRest : chosen.length > 0 ? text.sendFiles(chosen.length, sizeWords(bytes)) : text.send }}</button>
            <button v-else-if="phase === 'sending'" class="button" type="button" @click="sending.pause">{{ text.pause }}</button>
            <button v-else class="button primary" type="submit">{{ text.goOn }}</button>
          </div>
        </footer>
      </form>
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
  padding: 10px 0 10px 14px;
  border-left: 4px solid var(--moss);
}
.deadline.passed {
  border-color: var(--rowan);
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
