<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { limits } from '../../../api/limits'
import { desk, type Claim, type Review, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import FilePreview from '../../../shared/FilePreview.vue'
import IdentityMark from '../../../shared/IdentityMark.vue'
import PlainName from '../../../shared/PlainName.vue'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { say, sayProblem } from '../../say'
import { useKeys } from '../../use-keys'
import { useRead } from '../../queries'
import ClaimNote from '../round/ClaimNote.vue'
import KeyHelp from '../round/KeyHelp.vue'

/** Steps through everything of a round that waits for a check. What was decided stays in the list until it is left, so that the preview keeps its place. */
const t = text.review
const roundId = Number(useRoute().params.id)
const claimNote = useTemplateRef('claimNote')
const { value: loaded, problem, load } = useRead(['to-check', roundId], () => desk.toCheck(roundId), { fresh: true, on: (event) => event.roundId === roundId })
const files = ref<Schemas['Waiting'][]>([])
const decided = ref(new Map<number, Review>())
const declined = ref(new Set<number>())
const at = ref(0)
const asking = ref(false)
const reason = ref('')
const helping = ref(false)
const reasonField = useTemplateRef('reasonField')
const current = computed(() => files.value[at.value])
const apart = computed(() => current.value?.file.claim === 'OPEN')
const claims = computed(() => files.value.filter((one) => one.file.claim === 'OPEN').length)
const left = computed(() => files.value.filter((one) => !decided.value.has(one.file.id)).length - claims.value)
const reasons = computed(() => [...new Set([...(loaded.value?.reasons ?? []), ...t.reasons])].slice(0, 8))

/** Takes up what came meanwhile, at the end of the list; an answer that was on its way while a no was said brings nothing back. */
watch(loaded, (now) => {
  const known = new Set([...files.value.map((one) => one.file.id), ...declined.value])
  files.value.push(...(now?.files.filter((one) => !known.has(one.file.id)).map((one) => ({ ...one, file: { ...one.file } })) ?? []))
}, { immediate: true })

useKeys({
  a: () => void decide('ACCEPTED', ''),
  r: ask,
  y: () => void claimNote.value?.yes(),
  n: () => void claimNote.value?.no(),
  p: () => void whole(),
  ArrowRight: () => step(1),
  ArrowLeft: () => step(-1),
  '?': () => (helping.value = true),
})

watch(at, () => {
  asking.value = false
  reason.value = ''
  void nextTick(() => document.querySelector('.waiting [aria-current]')?.scrollIntoView({ block: 'nearest' }))
})

function step(by: number) {
  at.value = Math.max(0, Math.min(files.value.length - 1, at.value + by))
}

/** On to the next file that is not decided yet, from here to the end and then from the beginning. */
function onward() {
  const open = (n: number) => !decided.value.has(files.value[n]!.file.id)
  const order = [...files.value.keys()].map((n) => (at.value + 1 + n) % files.value.length)
  at.value = order.find(open) ?? at.value
}

async function ask() {
  if (!current.value) return
  if (apart.value) return say(text.claims.first)
  asking.value = true
  await nextTick()
  reasonField.value?.focus()
}

async function decide(to: Review, why: string) {
  const one = current.value
  if (apart.value) return say(text.claims.first)
  if (!one || (decided.value.get(one.file.id) ?? 'NONE') === to) return
  if (to === 'RETURNED' && !why.trim()) return reasonField.value?.focus()
  const from = decided.value.get(one.file.id) ?? 'NONE'
  try {
    await desk.review(one.file.id, from, to, why)
    decided.value = new Map(decided.value).set(one.file.id, to)
    asking.value = false
    say(`${text.panel.decided[to]}: ${one.file.name}`, { label: text.panel.undo, run: () => void undo(one.file.id, to) })
    onward()
  } catch (error) {
    sayProblem(error)
    await load()
  }
}

async function undo(id: number, from: Review) {
  try {
    await desk.review(id, from, 'NONE', '')
    const rest = new Map(decided.value)
    rest.delete(id)
    decided.value = rest
    at.value = files.value.findIndex((one) => one.file.id === id)
  } catch (error) {
    sayProblem(error)
  }
}

/** What was said of one file of a sending holds for all of it; what is not theirs needs no check. */
function claimed(submission: number, to: Claim) {
  const whole = files.value.filter((one) => one.file.submissionId === submission)
  if (to === 'DECLINED') {
    whole.forEach((one) => declined.value.add(one.file.id))
    files.value = files.value.filter((one) => !whole.includes(one))
  } else whole.forEach((one) => (one.file.claim = to))
  at.value = Math.max(0, Math.min(at.value, files.value.length - 1))
  if (to !== 'OPEN') return
  declined.value.clear()
  void load()
}

async function whole() {
  const one = current.value
  if (!one) return
  if (apart.value) return say(text.claims.first)
  try {
    const { files: accepted } = await desk.acceptAll(one.file.basketId)
    const all = new Map(decided.value)
    accepted.forEach((id) => all.set(id, 'ACCEPTED'))
    decided.value = all
    say(t.acceptedAll(accepted.length), { label: text.panel.undo, run: () => void unaccept(accepted) })
    onward()
  } catch (error) {
    sayProblem(error)
  }
}

async function unaccept(ids: number[]) {
  try {
    await desk.unaccept(ids)
    const rest = new Map(decided.value)
    ids.forEach((id) => rest.delete(id))
    decided.value = rest
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header>
      <div>
        <h1>{{ t.title(left) }}{{ claims ? t.titleClaimed(claims) : '' }}</h1>
        <p v-if="loaded"><RouterLink :to="{ name: 'round', params: { id: roundId } }">{{ t.back }}</RouterLink> <span class="quiet">{{ loaded.title }}</span></p>
      </div>
      <ElButton size="small" :aria-label="text.board.keys" @click="helping = true">?</ElButton>
    </header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!loaded && !problem" />
    <EmptyPart v-if="loaded && files.length === 0" :words="t.none" />
    <div v-if="current" class="desk">
      <ol class="waiting" :aria-label="t.list">
        <li v-for="(one, n) in files" :key="one.file.id">
          <button type="button" :aria-current="n === at || undefined" @click="at = n">
            <span class="who">{{ one.person }}</span>
            <span v-if="decided.has(one.file.id)" :class="decided.get(one.file.id) === 'ACCEPTED' ? 'accepted' : 'error'">{{ text.panel.decided[decided.get(one.file.id)!] }}</span>
            <span class="quiet">{{ one.item }}</span>
          </button>
        </li>
      </ol>
      <section class="look">
        <div class="above">
          <div>
            <h2>{{ current.person }}: {{ current.item }}</h2>
            <p class="quiet"><PlainName class="mono" :name="current.file.name" />, {{ sizeWords(current.file.bytes) }}, {{ dayAndTime(current.file.receivedAt) }} <IdentityMark :identity="current.file.identity" /></p>
            <p v-if="current.file.unchecked" class="same">{{ text.panel.unchecked }}</p>
            <p v-if="current.file.sameAs" class="same">{{ text.panel.same }} {{ current.file.sameAs.person }}: <span class="mono">{{ current.file.sameAs.path }}</span></p>
            <p v-if="current.file.note" class="word">{{ text.panel.wrote }} <span dir="auto">{{ current.file.note }}</span></p>
            <p v-if="current.file.declaredAs && !current.file.claim" class="quiet">{{ text.panel.declared }} {{ current.file.declaredAs }}</p>
          </div>
          <div class="actions">
            <ElButton type="primary" :disabled="apart || decided.get(current.file.id) === 'ACCEPTED'" @click="decide('ACCEPTED', '')">{{ t.accept }}</ElButton>
            <ElButton :aria-expanded="asking" :disabled="apart || decided.get(current.file.id) === 'RETURNED'" @click="ask">{{ t.sendBack }}</ElButton>
            <ElButton :disabled="apart" @click="whole">{{ t.whole }}</ElButton>
            <ElButton :disabled="at === 0" :aria-label="t.before" @click="step(-1)">←</ElButton>
            <ElButton :disabled="at === files.length - 1" :aria-label="t.skip" @click="step(1)">→</ElButton>
          </div>
        </div>
        <ClaimNote v-if="current.file.claim === 'OPEN'" ref="claimNote" :key="current.file.submissionId" :file="current.file" :person="current.person" @decided="(to) => claimed(current!.file.submissionId, to)" />
        <form v-if="asking" class="reason" @submit.prevent="decide('RETURNED', reason)" @keydown.esc.stop="asking = false">
          <label for="review-reason">{{ t.reason }}</label>
          <ElInput id="review-reason" ref="reasonField" v-model="reason" :maxlength="limits.Decision.reason.longest" autocomplete="off" />
          <div class="usual" role="group" :aria-label="t.usual">
            <ElButton v-for="usual in reasons" :key="usual" size="small" @click="reason = usual">{{ usual }}</ElButton>
          </div>
          <span><ElButton type="primary" native-type="submit">{{ text.panel.confirmReturn }}</ElButton></span>
        </form>
        <FilePreview :id="current.file.id" :key="current.file.id" :name="current.file.name" :media-type="current.file.mediaType" />
      </section>
    </div>
    <KeyHelp v-model="helping" :keys="t.keyList" />
  </div>
</template>

<style scoped>
.word {
  padding-left: 10px;
  border-left: 3px solid var(--moss);
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.desk {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 22px;
  align-items: start;
}
.waiting {
  position: sticky;
  top: 12px;
  max-height: calc(100vh - 140px);
  margin: 0;
  padding: 0;
  overflow: auto;
  border: 1px solid var(--line);
  background: var(--card);
  list-style: none;
}
.waiting button {
  display: grid;
  grid-template-columns: 1fr auto;
  width: 100%;
  padding: 8px 12px;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  text-align: left;
  cursor: pointer;
}
.waiting button .quiet {
  grid-column: 1 / -1;
  font-size: 15px;
}
.waiting button[aria-current] {
  background: var(--leaf-tint);
  box-shadow: inset 4px 0 var(--leaf);
}
.who {
  font-weight: 600;
}
.accepted {
  color: var(--leaf-deep);
}
.above {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 10px 20px;
  margin-bottom: 12px;
}
h2 {
  font-size: 20px;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 8px;
}
.same {
  color: var(--acorn-text);
}
.reason {
  display: grid;
  gap: 8px;
  margin-bottom: 12px;
  padding: 12px 16px;
  background: var(--tint);
}
.usual {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.look {
  min-height: 60vh;
}
</style>
