<script setup lang="ts">
import { computed, onBeforeUnmount, reactive, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { desk, type ParcelInFull } from '../../../api/desk'
import { limits } from '../../../api/limits'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import AskOnce from '../../AskOnce.vue'
import { say, sayProblem } from '../../say'
import FieldBox from '../compose/FieldBox.vue'
import ParcelFilesPart from './ParcelFilesPart.vue'
import ParcelPeoplePart from './ParcelPeoplePart.vue'
import ParcelTermsPart from './ParcelTermsPart.vue'
import BothVersions from '../../both/BothVersions.vue'
import { together } from '../../both/merge'
import { useBoth } from '../../both/use-both'
import { formOf, parcelNames, sheetOf } from './parcel-form'

/** A parcel that is being made ready: what, who, until when. It is kept while it is typed. */
const props = defineProps<{ full: ParcelInFull; reload: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.parcels
const router = useRouter()
const SAVE_MILLISECONDS = 700
const id = props.full.parcel.id
const form = reactive(formOf(props.full))
const version = ref(props.full.version)
const state = ref<'saved' | 'saving' | ''>('')
const busy = ref(false)
const people = useTemplateRef<{ addTyped: () => Promise<boolean> }>('people')
const whenReady = ref(props.full.parcel.whenReady)
const at = (field: string) => problem.value?.at(field) ?? ''
const peopleError = computed(() => at('people') || (problem.value?.errors.find((one) => one.field.startsWith('people['))?.detail ?? ''))
const allReady = computed(() => props.full.files.length > 0 && props.full.files.every((file) => file.state === 'READY'))
let timer = 0
let saving: Promise<boolean> | undefined
let dirty = false

async function save(): Promise<boolean> {
  clearTimeout(timer)
  if (saving) await saving
  if (!dirty) return !problem.value
  dirty = false
  state.value = 'saving'
  saving = (async () => {
    await submit()
    saving = undefined
    const kept = !problem.value && !asked.value
    state.value = kept ? 'saved' : ''
    dirty ||= !kept
    return kept
  })()
  return saving
}

/** The passcode that the server has; its slow hash is made once, not at each saving. */
let guarded = ''
/** Which version the next one is meant to follow. */
const latest = () => Math.max(version.value, props.full.version)
const { conflicts, asked, problem, submit, decide } = useBoth(form, {
  // What was read before the last saving here is older than what is typed.
  kept: () => (props.full.version < version.value ? undefined : formOf(props.full)),
  version: () => props.full.version,
  reload: props.reload,
  send: async () => {
    const typed = sheetOf(form, latest(), whenReady.value)
    version.value = (await desk.changeParcel(id, typed.passcode && typed.passcode === guarded ? { ...typed, passcode: null } : typed)).version
    guarded = typed.passcode ?? guarded
  },
  joined: { people: together },
})

function touched() {
  dirty = true
  state.value = ''
  clearTimeout(timer)
  timer = window.setTimeout(() => void save(), SAVE_MILLISECONDS)
}
watch(form, touched, { deep: true })
onBeforeUnmount(() => {
  clearTimeout(timer)
  // What nobody decided between is not kept over what another one wrote.
  if (dirty && conflicts.value.length === 0) void desk.changeParcel(id, sheetOf(form, latest(), whenReady.value)).catch(sayProblem)
})

/** Everything typed goes along, also what stands in the field of people and was not added. */
async function handOut(wait: boolean) {
  if (busy.value) return
  busy.value = true
  try {
    if (!(await people.value?.addTyped())) return
    whenReady.value = wait
    dirty = true
    if (!(await save())) return
    const letters = form.byLetter ? form.people.length : 0
    if (!wait) {
      await desk.handOut(id, version.value)
      say(letters > 0 ? t.handedOutLetters(letters) : t.handedOut)
    }
    emit('changed')
  } catch (error) {
    problem.value = error as ApiProblem
    if (problem.value.errors.length === 0) sayProblem(error)
  } finally {
    busy.value = false
  }
}

async function doNotWait() {
  whenReady.value = false
  dirty = true
  await save()
  emit('changed')
}

async function discard() {
  dirty = false
  clearTimeout(timer)
  try {
    await desk.discardParcel(id)
    say(t.discarded)
    await router.push('/parcels')
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <BothVersions v-if="asked" :conflicts="conflicts" :names="parcelNames()" @decide="decide" />
  <form class="draft" novalidate @submit.prevent="handOut(false)">
    <section>
      <h2><span class="n">1</span> {{ t.what }}</h2>
      <div class="body">
        <FieldBox id="parcel-title" v-slot="{ attrs }" :label="t.name" :hint="t.nameHint" :error="at('title')"><ElInput v-bind="attrs" v-model="form.title" :maxlength="limits.ParcelSheet.title.longest" /></FieldBox>
        <FieldBox id="parcel-message" v-slot="{ attrs }" :label="t.message" :hint="t.messageHint" :error="at('message')"><ElInput v-bind="attrs" v-model="form.message" type="textarea" :rows="3" :maxlength="limits.ParcelSheet.message.longest" /></FieldBox>
        <ParcelFilesPart :full="full" :error="at('files')" @changed="emit('changed')" />
      </div>
    </section>
    <section>
      <h2><span class="n">2</span> {{ t.who }}</h2>
      <div class="body">
        <p class="quiet">{{ t.whoHint }}</p>
        <ParcelPeoplePart id="parcel-people" ref="people" v-model="form.people" :error="peopleError" />
        <ElCheckbox v-if="form.people.length > 0" v-model="form.byLetter">{{ t.letter }} <span class="quiet">{{ t.letterHint }}</span></ElCheckbox>
        <ElCheckbox v-model="form.open">{{ t.openLink }} <span class="quiet">{{ t.openHint }}</span></ElCheckbox>
      </div>
    </section>
    <section>
      <h2><span class="n">3</span> {{ t.until }}</h2>
      <div class="body"><ParcelTermsPart v-model="form" :error-at="at" :passcode-set="full.parcel.passcode" /></div>
    </section>
    <footer>
      <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
      <p v-else-if="problem" class="error" role="alert">{{ problem.errors[0]!.detail }}</p>
      <p v-if="full.parcel.whenReady" class="quiet" role="status">{{ t.waiting }}</p>
      <div class="actions">
        <ElButton v-if="full.parcel.whenReady" @click="doNotWait">{{ t.notYet }}</ElButton>
        <ElButton v-else-if="full.files.length === 0 || allReady" type="primary" native-type="submit" :loading="busy">{{ t.handOut }}</ElButton>
        <ElButton v-else type="primary" :loading="busy" @click="handOut(true)">{{ t.whenReady }}</ElButton>
        <AskOnce :label="t.discard" :question="t.discardQuestion" plain @sure="discard" />
        <span class="quiet" aria-live="polite">{{ state === 'saving' ? t.saving : state === 'saved' ? t.saved : '' }}</span>
      </div>
    </footer>
  </form>
</template>

<style scoped>
.draft {
  display: grid;
  gap: 18px;
  max-width: 980px;
}
section {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 8px 24px;
  padding-top: 14px;
  border-top: 1px solid var(--line);
}
h2 {
  font-size: 19px;
}
.n {
  color: var(--oak);
}
.body {
  display: grid;
  gap: 10px;
  min-width: 0;
}
.body :deep(.el-checkbox) {
  height: auto;
  white-space: normal;
}
footer {
  position: sticky;
  bottom: 0;
  z-index: 3;
  padding: 10px 0;
  border-top: 1px solid var(--line);
  background: var(--paper);
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
@media (max-width: 900px) {
  section {
    grid-template-columns: 1fr;
  }
}
</style>
