<script setup lang="ts">
import { computed, nextTick, reactive, ref } from 'vue'
import { onBeforeRouteLeave, useRoute } from 'vue-router'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { ask } from '../../say'
import RefilingNote from './RefilingNote.vue'
import RuleCard from './RuleCard.vue'
import TrialPanel from './TrialPanel.vue'
import BothVersions from '../../both/BothVersions.vue'
import { effectWords, whenWords, type Rule } from './rule-words'
import { useRules } from './use-rules'

/** The rules of a round, or of the office: a list of sentences, a trial on what is here, and keeping them. */
const t = text.filing
const route = useRoute()
const round = Number(route.params.id ?? 0)
const rules = useRules(round)
const { list, edited, problem, idle, trial, outdated, changed, busy, conflicts, decide } = rules
const { value: known } = useRead(['rules-live', round], async () => { await rules.freshen(); return true }, { on: (event) => event.type === 'filing' })
const { value: roots } = useRead(['roots'], desk.roots, { on: (event) => event.type === 'filing' })
const { value: groups } = useRead(['groups'], desk.groups)
const { value: batches } = useRead(['refilings'], desk.refilings, { on: (event) => event.type === 'filing' })
const open = reactive(new Set<number>())
const shownBatch = ref<number>()
const batch = computed(() => shownBatch.value ?? batches.value?.find((one) => one.roundId === round && !one.endedAt)?.id)
const folder = computed(() => list.value?.folder || '{round}/{person}')
const name = computed(() => list.value?.name || '{person} - {item} - {received:yyyy-MM-dd}{ext}')

const ruleWords = (_: string, value: unknown) => (value as Rule[]).map((rule, n) => `${n + 1}. ${whenWords(rule)}: ${effectWords(rule, roots.value ?? []).join('; ')}`).join('\n') || undefined

function faulty(at: number): boolean {
  return rules.errors.value.some((one) => one.field.startsWith(`rules[${at}]`))
}

async function add() {
  rules.add()
  open.add(edited[edited.length - 1]!.key)
  await nextTick()
  document.getElementById(`rule-${edited.length}-called`)?.focus()
}

async function apply() {
  const begun = await rules.apply()
  if (begun) shownBatch.value = begun.id
}

async function keep() {
  if (await rules.keep()) open.clear()
}

void rules.load()
onBeforeRouteLeave(() => (changed.value ? ask(t.leave) : true))
</script>

<template>
  <div class="page" :data-live="known">
    <header>
      <div>
        <h1>{{ round ? t.title : t.ofOffice }}</h1>
        <p v-if="round && list" class="quiet"><RouterLink :to="{ name: 'round', params: { id: round } }">{{ list.round }}</RouterLink></p>
      </div>
      <RouterLink class="button" :to="{ name: 'journal', query: round ? { round } : {} }">{{ t.toJournal }}</RouterLink>
    </header>
    <BothVersions v-if="conflicts.length > 0" :conflicts="conflicts" :names="{ rules: t.title }" :say="ruleWords" @decide="decide" />
    <FailureNote v-if="problem" :problem="problem" @retry="rules.load" />
    <LoadingPart v-if="!list && !problem" />
    <template v-if="list">
      <p class="quiet intro">
        {{ round ? t.intro(`${folder}/${name}`) : t.introOffice }}
        <RouterLink v-if="round && list.officeRules > 0" :to="{ name: 'filing' }">({{ t.toOffice(list.officeRules) }})</RouterLink>
      </p>
      <EmptyPart v-if="edited.length === 0" :words="t.none" />
      <ol class="rules">
        <RuleCard v-for="(one, n) in edited" :key="one.key" :open="open.has(one.key)" :number="n + 1" :count="edited.length" :rule="one.rule" :idle="idle.find((odd) => odd.number === n + 1)?.why" :faulty="faulty(n)"
          :roots="roots ?? []" :round="round" :items="list.items" :groups="groups?.map((group) => group.name) ?? []" :error-at="rules.errorAt" :folder-of-round="folder" :name-of-round="name"
          @update:open="(now) => (now ? open.add(one.key) : open.delete(one.key))" @move="(by) => rules.move(n, by)" @remove="rules.remove(n)" />
      </ol>
      <p class="error" role="alert">{{ rules.errorAt('rules') }}</p>
      <div class="actions">
        <ElButton @click="add">{{ t.add }}</ElButton>
        <template v-if="changed">
          <ElButton type="primary" :loading="busy" @click="keep">{{ t.keepNew }}</ElButton>
          <ElButton @click="rules.drop">{{ t.drop }}</ElButton>
          <span class="quiet" role="status">{{ t.unsaved }}</span>
        </template>
      </div>
      <RefilingNote v-if="batch" :id="batch" :key="batch" @begun="(id) => (shownBatch = id)" />
      <TrialPanel :trial="trial" :outdated="outdated" :busy="busy" @try="rules.tryIt" @apply="apply" />
    </template>
  </div>
</template>

<style scoped>
.intro {
  max-width: 90ch;
}
.rules {
  display: grid;
  gap: 10px;
  margin: 14px 0;
  padding: 0;
  list-style: none;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
</style>
