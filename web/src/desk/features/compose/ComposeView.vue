<script setup lang="ts">
import { nextTick, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { FieldError } from '../../../api/problem'
import type { Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import AskOnce from '../../AskOnce.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import BothVersions from '../../both/BothVersions.vue'
import { sayProblem } from '../../say'
import ComposePreview from './ComposePreview.vue'
import OpeningDialog from './OpeningDialog.vue'
import PartHow from './PartHow.vue'
import PartWhat from './PartWhat.vue'
import PartWhen from './PartWhen.vue'
import PartWhere from './PartWhere.vue'
import PartWho from './PartWho.vue'
import { useSheet } from './use-sheet'

const t = text.compose
const route = useRoute()
const router = useRouter()
const { conflicts, decide, sheet, loaded, id, errors, oddities, savedAt, saving, problem, opened, shown, load, save, ask, open, discard, errorAt } = useSheet(route.params.id ? Number(route.params.id) : undefined)
const opening = ref<Schemas['OpeningPreview']>()
const parts = [PartWhat, PartWho, PartWhen, PartWhere, PartHow]

onMounted(load)

/** Shows what opening will do, or leads to what keeps the round from being opened. */
async function tryOpen() {
  opening.value = await ask()
  if (!opening.value) await toFirstFault()
}

async function openNow() {
  const done = await open()
  opening.value = undefined
  if (done) await router.push({ name: 'round', params: { id: id.value } })
  else await toFirstFault()
}

async function toFirstFault() {
  await nextTick()
  document.querySelector<HTMLElement>('.compose [aria-invalid="true"]')?.focus()
}

/** Leads to the field that an error is about: the one beside which it stands, else the part that it belongs to. */
async function toField(error: FieldError) {
  shown.value = true
  await nextTick()
  const beside = [...document.querySelectorAll<HTMLElement>('.compose .part .error')].find((one) => one.textContent?.trim() === error.detail)
  const field = beside?.id ? document.querySelector<HTMLElement>(`[aria-describedby~="${beside.id}"]`) : undefined
  const part = document.getElementById(`part-${partOf(error.field)}`)
  const target = field ?? beside?.closest('.part')?.querySelector<HTMLElement>('[aria-invalid="true"]') ?? part?.parentElement?.querySelector<HTMLElement>('input, textarea')
  target?.focus()
  target?.scrollIntoView({ block: 'center' })
}

function partOf(field: string): number {
  if (/^(people|groups)/.test(field)) return 1
  if (/^(deadline|zone|warning|grace|closing|keepUntil|calendar|letters)/.test(field)) return 2
  if (/Pattern$/.test(field)) return 3
  return /^(openLink|passcode)/.test(field) ? 4 : 0
}

async function throwAway() {
  try {
    await discard()
    await router.push('/rounds')
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page compose">
    <header>
      <h1>{{ sheet.title || t.newTitle }}</h1>
      <p class="quiet" role="status">
        <template v-if="saving">{{ t.saving }}</template>
        <template v-else-if="problem">{{ t.notSaved }}</template>
        <template v-else-if="savedAt">{{ t.saved(dayAndTime(savedAt)) }}</template>
        <template v-else>{{ t.notYet }}</template>
      </p>
    </header>
    <FailureNote v-if="problem && problem.code !== 'sign-in-needed'" :problem="problem" @retry="loaded && id ? save() : load()" />
    <p v-if="opened && id && !shown">{{ t.notDraft }} <RouterLink :to="{ name: 'round', params: { id } }">{{ t.toBoard }}</RouterLink></p>
    <LoadingPart v-else-if="!loaded && !problem" />
    <form v-else-if="loaded" class="columns" novalidate @submit.prevent>
      <div>
        <section v-for="(part, n) in parts" :key="n" class="part" :aria-labelledby="`part-${n}`">
          <h2 :id="`part-${n}`"><span class="number">{{ n + 1 }}</span>{{ t.parts[n] }}</h2>
          <component :is="part" :sheet="sheet" :error-at="errorAt" />
        </section>
        <section class="check" aria-live="polite">
          <template v-if="errors.length > 0">
            <h2>{{ t.before }}</h2>
            <ul>
              <li v-for="error in errors" :key="error.field"><ElButton type="primary" link @click="toField(error)">{{ error.detail }}</ElButton></li>
            </ul>
          </template>
          <template v-if="oddities.length > 0">
            <h2>{{ t.odd }}</h2>
            <ul>
              <li v-for="odd in oddities" :key="odd.field + odd.detail">{{ odd.detail }}</li>
            </ul>
          </template>
          <p v-if="errors.length === 0 && savedAt" class="ready">{{ t.ready }}</p>
          <div class="actions">
            <ElButton type="primary" @click="tryOpen">{{ t.open }}</ElButton>
            <a v-if="id" class="button" :href="`/rehearsal/${id}`" target="_blank" rel="noopener">{{ text.round.rehearse }}</a>
            <AskOnce v-if="id" :label="t.discard" :question="t.confirmDiscard" @sure="throwAway" />
          </div>
        </section>
      </div>
      <BothVersions v-if="conflicts.length > 0" :conflicts="conflicts" :names="text.compose.fields" @decide="decide" />
      <OpeningDialog v-if="opening" :round-id="id" :title="sheet.title" :opening="opening" :open="openNow" @leave="opening = undefined" />
      <ComposePreview :sheet="sheet" :round-id="id" :saved-at="savedAt" :ready="errors.length === 0" />
    </form>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 32px;
  align-items: start;
}
.part {
  margin-bottom: 12px;
  padding: 14px 22px 4px;
  border: 1px solid var(--line);
  background: var(--card);
}
h2 {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 10px;
  font-size: 20px;
}
.number {
  display: grid;
  place-items: center;
  width: 30px;
  height: 30px;
  border: 2px solid var(--oak);
  border-radius: var(--corner);
  color: var(--oak);
}
.check ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0 22px;
  margin: 0 0 8px;
  padding-left: 20px;
}
.check h2 {
  margin-bottom: 4px;
  font-size: 17px;
}
.ready {
  margin-bottom: 10px;
  color: var(--leaf-deep);
}
.actions {
  display: flex;
  gap: 12px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
