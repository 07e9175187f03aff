<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk } from '../../../api/desk'
import { limits } from '../../../api/limits'
import { text, withCount } from '../../../text/desk'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import AskOnce from '../../AskOnce.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import NamedMenu from '../../fields/NamedMenu.vue'
import { sayProblem } from '../../say'
import { useRead } from '../../queries'
import { useSubmit } from '../../use-submit'
import HandOver from './HandOver.vue'
import TermsForm from './TermsForm.vue'
import { termsWords } from './link-words'
import { renewals } from './renewals'
import { useLinkActs } from './use-link-acts'

/** One link: handing it over, its terms, and what was done to it. */
const props = defineProps<{ linkId: number }>()
const emit = defineEmits<{ close: []; changed: [] }>()
const t = text.links
const { value: full, problem, load } = useRead(['link', props.linkId], () => desk.link(props.linkId), { fresh: true, on: (event) => !['contact', 'letter', 'moment'].includes(event.type) })
const link = computed(() => full.value!.link)
const changing = ref(false)
const settingPasscode = ref(false)
const passcode = ref('')
const { act, done, undo } = useLinkActs()

async function changed() {
  await load()
  emit('changed')
}

async function run(kind: Parameters<typeof act>[0]['kind'], days: number | null = null) {
  if (await act({ kind, ids: [props.linkId], days })) await changed()
}

async function newAddress() {
  try {
    done(await desk.newLinkAddress(props.linkId, link.value.version), t.newAddressDone)
  } catch (error) {
    sayProblem(error)
  }
  await changed()
}

const { problem: passcodeProblem, submit: setPasscode } = useSubmit(async () => {
  done(await desk.setLinkPasscode(props.linkId, link.value.version, passcode.value))
  settingPasscode.value = false
  await changed()
})

async function saved(result: Parameters<typeof done>[0]) {
  changing.value = false
  done(result, t.saved)
  await changed()
}

async function takeBack(actId: number) {
  await undo(actId)
  await changed()
}
</script>

<template>
  <aside class="sheet" :aria-label="full ? (link.person ?? t.open) : t.terms" @keydown.esc="emit('close')">
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-else-if="!full" />
    <template v-if="full">
      <header>
        <div>
          <h2>{{ link.person ?? t.open }}</h2>
          <p class="quiet"><RouterLink :to="{ name: 'round', params: { id: link.roundId }, query: link.basketId ? { basket: link.basketId } : {} }">{{ link.round }}</RouterLink></p>
          <p>
            <strong>{{ t.states[link.state] }}</strong><template v-if="link.endsSoon">, {{ t.endsSoon }}</template><template v-if="link.removed">, {{ t.removed }}</template>.
            <span class="quiet">{{ t.used(link.uses, link.files, sizeWords(link.bytes)) }}<template v-if="link.lastUse">, {{ t.lastUse(dayAndTime(link.lastUse)) }}</template></span>
          </p>
        </div>
        <ElButton class="close" link :aria-label="text.panel.close" @click="emit('close')">✕</ElButton>
      </header>

      <HandOver v-if="link.state !== 'WITHDRAWN'" :link="link" :url="full.url" />

      <section>
        <h3>{{ t.terms }}</h3>
        <p>{{ termsWords(link) }}.</p>
        <TermsForm v-if="changing" :link="link" :suggestion="full.suggestion" :reload="load" @saved="saved" @cancel="changing = false" />
        <form v-else-if="settingPasscode" class="form" @submit.prevent="setPasscode" @keydown.esc.stop="settingPasscode = false">
          <label for="link-passcode">{{ t.newPasscode }}</label>
          <ElInput id="link-passcode" v-model="passcode" autocomplete="off" :maxlength="limits.RoundSheet.passcode.longest" :aria-invalid="!!passcodeProblem" aria-describedby="link-passcode-error" />
          <p id="link-passcode-error" class="error" role="alert">{{ passcodeProblem?.at('passcode') || passcodeProblem?.detail }}</p>
          <span><ElButton type="primary" size="small" native-type="submit">{{ t.savePasscode }}</ElButton> <ElButton size="small" @click="settingPasscode = false">{{ text.round.cancel }}</ElButton></span>
        </form>
        <div v-else class="actions">
          <ElButton size="small" @click="changing = true">{{ t.change }}</ElButton>
          <NamedMenu v-if="link.state !== 'WITHDRAWN'" :label="t.renew" :names="renewals.map((one) => one.label)" small @pick="(n) => run('RENEW', renewals[n]!.days)" />
          <ElButton v-if="link.state === 'PAUSED'" size="small" @click="run('GO_ON')">{{ t.goOn }}</ElButton>
          <ElButton v-else-if="link.state !== 'WITHDRAWN'" size="small" @click="run('PAUSE')">{{ t.pause }}</ElButton>
          <ElButton v-if="link.state !== 'WITHDRAWN'" size="small" @click="run('WITHDRAW')">{{ t.withdraw }}</ElButton>
          <ElButton v-else-if="!link.removed" size="small" @click="run('GIVE_BACK')">{{ t.giveBack }}</ElButton>
          <ElButton size="small" @click="settingPasscode = true">{{ t.setPasscode }}</ElButton>
          <AskOnce :label="t.newAddressDo" :question="t.newAddressQuestion" small plain @sure="newAddress" />
        </div>
      </section>

      <section v-if="full.story.length > 0">
        <h3>{{ t.story }}</h3>
        <ol class="story">
          <li v-for="event in [...full.story].reverse()" :key="event.id">
            <span><span class="quiet">{{ dayAndTime(event.at) }}, {{ event.by }}</span> <span :class="{ undone: event.undone }">{{ withCount(text.panel.events[event.what], event.links) ?? event.what }}<template v-if="event.said">: {{ event.said }}</template></span></span>
            <span v-if="event.undone" class="quiet">{{ text.acts.undone }}</span>
            <ElButton v-else size="small" @click="takeBack(event.id)">{{ text.panel.undo }}</ElButton>
          </li>
        </ol>
      </section>
    </template>
  </aside>
</template>

<style scoped>
.sheet {
  position: sticky;
  top: 12px;
  max-height: calc(100vh - 24px);
  padding: 16px 18px;
  overflow: auto;
  border: 1px solid var(--line);
  border-top: 4px solid var(--oak);
  background: var(--card);
}
header {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
h2 {
  font-size: 21px;
}
h3 {
  margin-bottom: 6px;
  padding-top: 12px;
  font-size: 16px;
}
section {
  margin-top: 12px;
  border-top: 1px solid var(--line);
}
.close {
  align-self: start;
  min-width: 32px;
  min-height: 32px;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
.form {
  display: grid;
  gap: 6px;
  margin-top: 8px;
}
.story {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.story li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.undone {
  text-decoration: line-through;
}
</style>
