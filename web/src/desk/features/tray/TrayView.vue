<script setup lang="ts">
import { computed, nextTick, reactive, ref, useTemplateRef, watch } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import FilePreview from '../../../shared/FilePreview.vue'
import IdentityMark from '../../../shared/IdentityMark.vue'
import PlainName from '../../../shared/PlainName.vue'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import ChoiceField from '../../fields/ChoiceField.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import FieldBox from '../compose/FieldBox.vue'
import { may } from '../../use-session'
import LooseForm from './LooseForm.vue'
import PutIn from './PutIn.vue'

/** What waits for a decision: a list, beside it the file, who and what it may be and why, and one key to accept. */
const t = text.tray
type Entry = Schemas['TrayEntry']
const { value: tray, problem, load } = useRead(['tray'], desk.tray, { on: (event) => ['filing', 'arrival', 'basket'].includes(event.type) })
const entries = computed(() => tray.value?.entries ?? [])
const current = ref('')
const ticked = reactive(new Set<string>())
const form = reactive<{ person: number | null; item: number | null; always: boolean }>({ person: null, item: null, always: false })
const shownFile = ref<number>()
const busy = ref(false)
const looseForm = useTemplateRef('looseForm')

const entry = computed(() => entries.value.find((one) => one.key === current.value) ?? entries.value[0])
const chosen = computed(() => (ticked.size > 0 ? entries.value.filter((one) => ticked.has(one.key)) : entry.value ? [entry.value] : []))
const loose = computed(() => chosen.value.length > 0 && chosen.value.every((one) => one.cause === 'OTHER_WAY'))
const oneRound = computed(() => loose.value || new Set(chosen.value.map((one) => (one.cause === 'OTHER_WAY' ? 0 : one.roundId))).size <= 1)
const claims = computed(() => chosen.value.some((one) => one.cause === 'CLAIM'))
const { value: choices } = useRead(computed(() => ['tray-choices', entry.value?.roundId ?? 0]), () => desk.trayChoices(entry.value!.roundId), { when: computed(() => entry.value !== undefined && entry.value.cause !== 'OTHER_WAY') })
const people = computed(() => [...(ticked.size > 1 ? [{ value: null, label: t.asSent }] : []), ...(choices.value?.people ?? []).map((one) => ({ value: one.id as number | null, label: one.name }))])
const items = computed(() => [...(ticked.size > 1 || (entry.value?.files.length ?? 0) > 1 ? [{ value: null, label: t.asSent }] : []), ...(choices.value?.items ?? []).map((one) => ({ value: one.id as number | null, label: one.name }))])

/** What is suggested stands in the form; several are taken as they were sent until something is chosen. */
watch([() => entry.value?.key, () => ticked.size], () => {
  const one = entry.value
  const many = ticked.size > 1
  form.person = many || !one ? null : one.suggestion.basketId
  form.item = many || !one || one.files.length > 1 ? null : one.suggestion.itemId
  form.always = false
  shownFile.value = one?.files[0]?.id
}, { immediate: true })
watch(entries, (now) => [...ticked].forEach((key) => !now.some((one) => one.key === key) && ticked.delete(key)))

async function decide() {
  if (loose.value) return looseForm.value?.accept()
  const deciding = chosen.value
  if (deciding.length === 0 || claims.value || !oneRound.value || busy.value) return
  busy.value = true
  const next = entries.value[entries.value.findIndex((one) => one.key === entry.value?.key) + 1]?.key ?? ''
  const single = deciding.length === 1 ? deciding[0] : undefined
  const files = deciding.flatMap((one) => one.files.map((file) => file.id))
  try {
    const act = await desk.decideTray({
      files,
      senders: deciding.filter((one) => one.cause === 'SELF_DECLARED').map((one) => one.submissionId),
      basketId: form.person === single?.basketId ? null : form.person,
      itemId: single && single.files.length === 1 && form.item === single.files[0]!.itemId ? null : form.item,
      always: form.always,
    })
    ticked.clear()
    current.value = next
    say(t.decided(files.length), { label: text.panel.undo, run: () => void desk.undoTray(act.id).then(() => { say(t.undone); current.value = deciding[0]!.key; return load() }, sayProblem) })
  } catch (error) {
    sayProblem(error)
  }
  busy.value = false
  await load()
}

/** After a decision the next one is looked at. */
async function decidedLoose() {
  const gone = chosen.value.map((one) => one.key)
  const at = entries.value.findIndex((one) => one.key === entry.value?.key)
  const next = entries.value.slice(at).find((one) => !gone.includes(one.key))
  ticked.clear()
  current.value = next?.key ?? ''
  await load()
}

/** What was just put in is what one wants to file next. */
async function showPut() {
  const before = new Set(entries.value.map((one) => one.key))
  await load()
  const put = entries.value.find((one) => !before.has(one.key) && one.cause === 'OTHER_WAY')
  if (put && entry.value?.cause !== 'OTHER_WAY') current.value = put.key
}

async function claim(to: 'ACCEPTED' | 'DECLINED') {
  try {
    await desk.decideClaim(entry.value!.submissionId, 'OPEN', to)
    const sending = entry.value!.submissionId
    say(t.decided(entry.value!.files.length), { label: text.panel.undo, run: () => void desk.decideClaim(sending, to, 'OPEN').then(load, sayProblem) })
  } catch (error) {
    sayProblem(error)
  }
  await load()
}

function tick(one: Entry, on: boolean) {
  if (on) ticked.add(one.key)
  else ticked.delete(one.key)
}

async function keys(event: KeyboardEvent) {
  const at = entries.value.findIndex((one) => one.key === entry.value?.key)
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault()
    const to = entries.value[Math.max(0, Math.min(entries.value.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)))]
    if (!to) return
    current.value = to.key
    await nextTick()
    document.getElementById(`tray-${to.key}`)?.focus()
  } else if (event.key.toLowerCase() === 'a') {
    event.preventDefault()
    await decide()
  } else if (event.key === ' ' && entry.value) {
    event.preventDefault()
    tick(entry.value, !ticked.has(entry.value.key))
  }
}
</script>

<template>
  <div class="page">
    <header><div><h1>{{ t.title }}</h1><p class="quiet">{{ t.intro }}</p></div></header>
    <PutIn v-if="may('CHANGE')" @put="showPut" />
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!tray && !problem" />
    <EmptyPart v-if="tray && entries.length === 0" :words="t.none" />
    <div v-if="entry" class="split">
      <div>
        <p class="quiet">{{ t.keys }}</p>
        <ul :aria-label="t.list">
          <li v-for="one in entries" :key="one.key" :class="{ here: one.key === entry.key }">
            <ElCheckbox :model-value="ticked.has(one.key)" :aria-label="t.tick(one.files[0]?.name ?? one.person)" @change="(on) => tick(one, !!on)" />
            <ElButton :id="`tray-${one.key}`" class="entry" link :aria-current="one.key === entry.key ? 'true' : undefined" @click="current = one.key" @keydown="keys">
              <span class="lines">
                <strong><PlainName class="mono" :name="one.files[0]?.name ?? ''" /><template v-if="one.files.length > 1"> {{ t.files(one.files.length) }}</template></strong>
                <span>{{ one.person || one.suggestion.person }} <span class="tag">{{ t.causes[one.cause] }}</span></span>
                <span class="quiet">{{ one.round ? `${one.round}, ` : '' }}{{ dayAndTime(one.receivedAt) }}</span>
              </span>
            </ElButton>
          </li>
        </ul>
      </div>
      <section class="sheet" :aria-label="entry.files[0]?.name">
        <p v-if="ticked.size > 0"><strong>{{ t.chosen(ticked.size) }}</strong> <ElButton size="small" @click="ticked.clear()">{{ text.folders.clear }}</ElButton></p>
        <template v-else>
          <p class="why">{{ entry.why }}</p>
          <p v-if="entry.sender" class="quiet">{{ t.sender(entry.sender) }} <IdentityMark :identity="entry.identity" /></p>
        </template>
        <p v-if="!oneRound" class="error" role="alert">{{ t.oneRound }}</p>
        <template v-if="!may('CHANGE')" />
        <div v-else-if="claims && ticked.size === 0" class="actions">
          <ElButton type="primary" @click="claim('ACCEPTED')">{{ t.yes }}</ElButton>
          <ElButton @click="claim('DECLINED')">{{ t.no }}</ElButton>
        </div>
        <LooseForm v-else-if="loose" ref="looseForm" :entries="chosen" @decided="decidedLoose" @undone="load" />
        <form v-else-if="!claims" novalidate @submit.prevent="decide">
          <div class="pair">
            <FieldBox id="tray-person" v-slot="{ attrs }" :label="t.person" :hint="ticked.size === 0 ? entry.suggestion.personWhy : ''"><ChoiceField v-bind="attrs" v-model="form.person" filterable :choices="people" /></FieldBox>
            <FieldBox id="tray-item" v-slot="{ attrs }" :label="t.item" :hint="ticked.size === 0 && entry.files.length === 1 ? entry.suggestion.itemWhy : ''"><ChoiceField v-bind="attrs" v-model="form.item" :choices="items" /></FieldBox>
          </div>
          <ElCheckbox v-model="form.always">{{ t.always }}</ElCheckbox>
          <div class="actions"><ElButton type="primary" native-type="submit" :loading="busy" :disabled="!oneRound">{{ ticked.size > 1 ? t.acceptMany(ticked.size) : t.accept }}</ElButton></div>
        </form>
        <ul v-if="entry.files.length > 1" class="files">
          <li v-for="file in entry.files" :key="file.id"><ElButton type="primary" link size="small" :aria-pressed="file.id === shownFile" :aria-label="t.look(file.name)" @click="shownFile = file.id"><PlainName class="mono" :name="file.name" /></ElButton> <span class="quiet">{{ file.item }}, {{ sizeWords(file.bytes) }}</span></li>
        </ul>
        <template v-for="file in entry.files.filter((one) => one.id === shownFile)" :key="`${entry.key} ${file.id}`">
          <p><a class="button small" :href="entry.cause === 'OTHER_WAY' ? `/api/loose/${file.id}/content` : `/api/files/${file.id}`" download>{{ t.download }}</a> <span class="quiet">{{ sizeWords(file.bytes) }}</span></p>
          <FilePreview :id="file.id" :name="file.name" :media-type="file.mediaType" :loose="entry.cause === 'OTHER_WAY'" />
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: minmax(300px, 2fr) minmax(0, 3fr);
  gap: 20px;
  align-items: start;
}
ul {
  display: grid;
  gap: 6px;
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
.split > div li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 10px;
  align-items: center;
  padding: 6px 12px;
  border: 1px solid var(--line);
  border-left: 5px solid var(--line-strong);
  border-radius: 4px;
  background: var(--card);
}
.split > div li.here {
  border-left-color: var(--leaf);
  background: var(--leaf-tint);
}
html .entry {
  justify-content: start;
  width: 100%;
  text-align: left;
  text-decoration: none;
  white-space: normal;
}
.lines {
  display: grid;
  gap: 2px;
  line-height: 1.3;
}
.tag {
  padding: 0 6px;
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  font-size: 14px;
}
.sheet {
  position: sticky;
  top: 12px;
  max-height: calc(100vh - 24px);
  overflow: auto;
  padding: 12px 16px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--card);
}
.why {
  margin-top: 0;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  align-items: start;
}
.actions {
  display: flex;
  gap: 10px;
  margin: 8px 0 12px;
}
.files {
  margin-bottom: 10px;
}
</style>
