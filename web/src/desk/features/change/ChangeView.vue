<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type RoundSheet, type Schemas } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import BothVersions from '../../both/BothVersions.vue'
import { together } from '../../both/merge'
import { useBoth } from '../../both/use-both'
import FailureNote from '../../FailureNote.vue'
import { say } from '../../say'
import PartHow from '../compose/PartHow.vue'
import PartWhat from '../compose/PartWhat.vue'
import PartWhen from '../compose/PartWhen.vue'
import PartWhere from '../compose/PartWhere.vue'

/** Changes a round that gathers: typed like a new one, shown whom it affects, then applied. */
const t = text.change
const route = useRoute()
const router = useRouter()
const id = Number(route.params.id)
const sheet = reactive({} as RoundSheet)
const kept = ref<Schemas['Changing']>()
const loaded = ref(false)
const problem = ref<ApiProblem>()
const preview = ref<Schemas['ChangePreview']>()
const previewed = ref('')
const passcodeSet = ref(false)
const dropPasscode = ref(false)
const typed = () => JSON.stringify([sheet, dropPasscode.value])
const stale = computed(() => previewed.value !== '' && previewed.value !== typed())
const parts = [PartWhat, PartWhen, PartWhere]
const FIRST = 100

async function load() {
  try {
    kept.value = await desk.changing(id)
    passcodeSet.value = kept.value.passcodeSet
    loaded.value = true
    problem.value = undefined
  } catch (error) {
    problem.value = error as ApiProblem
  }
}

onMounted(load)

const change = () => ({ version: kept.value!.version, sheet: JSON.parse(JSON.stringify(sheet)) as RoundSheet, dropPasscode: dropPasscode.value })

async function look() {
  errors.value = undefined
  try {
    preview.value = await desk.previewChange(id, change())
    previewed.value = typed()
  } catch (error) {
    preview.value = undefined
    previewed.value = ''
    errors.value = error as ApiProblem
  }
}

const { conflicts, asked, problem: errors, submit: apply, decide } = useBoth(sheet, {
  kept: () => kept.value?.sheet,
  version: () => kept.value?.version,
  reload: load,
  send: () => desk.applyChange(id, change()),
  done: async () => {
    await router.push({ name: 'round', params: { id } })
    say(t.applied)
  },
  lookFirst: look,
  joined: { people: together },
})

const errorAt = computed(() => (field: string) => errors.value?.at(field) ?? '')
</script>

<template>
  <div class="page">
    <header>
      <div>
        <h1>{{ t.title }}</h1>
        <p class="quiet">{{ t.help }}</p>
      </div>
      <RouterLink class="button" :to="{ name: 'round', params: { id } }">{{ t.back }}</RouterLink>
    </header>
    <BothVersions v-if="asked" :conflicts="conflicts" :names="text.compose.fields" @decide="decide" />
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <form v-if="loaded" class="columns" novalidate @submit.prevent="look">
      <div>
        <section v-for="(part, n) in parts" :key="n" class="part"><component :is="part" :sheet="sheet" :error-at="errorAt" /></section>
        <section class="part"><PartHow v-model:drop-passcode="dropPasscode" :sheet="sheet" :error-at="errorAt" changing :passcode-set="passcodeSet" /></section>
      </div>
      <aside class="effect" aria-live="polite">
        <ElButton native-type="submit" :type="!preview || stale ? 'primary' : 'default'">{{ t.preview }}</ElButton>
        <template v-if="errors">
          <ul><li v-for="one in errors.errors" :key="one.field + one.detail" class="error">{{ one.detail }}</li></ul>
          <p v-if="errors.errors.length === 0" class="error">{{ errors.detail }}</p>
        </template>
        <template v-if="preview && !stale">
          <p class="sum">{{ preview.affected.length === 0 ? t.nobody : t.affects(preview.affected.length) }}</p>
          <p v-for="(n, kind) in preview.kinds" :key="kind">{{ n }} × {{ t.kinds[kind] }}</p>
          <p v-for="words in preview.plain" :key="words" class="quiet">{{ words }}</p>
          <p v-for="odd in preview.oddities" :key="odd.detail" class="odd">{{ odd.detail }}</p>
          <ElButton type="primary" @click="apply">{{ t.apply }}</ElButton>
          <ul class="people">
            <li v-for="one in preview.affected.slice(0, FIRST)" :key="one.effect.basketId">
              <strong>{{ one.name }}</strong> {{ one.effect.kinds.map((kind) => t.kinds[kind]).join(', ') }}
              <span v-if="one.effect.deadlineBefore !== one.effect.deadlineAfter" class="quiet">{{ dayAndTime(one.effect.deadlineBefore, sheet.zone) }} → {{ dayAndTime(one.effect.deadlineAfter, sheet.zone) }}</span>
            </li>
          </ul>
          <p v-if="preview.affected.length > FIRST" class="quiet">{{ text.today.more(preview.affected.length - FIRST) }}</p>
        </template>
        <p v-else-if="stale" class="quiet">{{ t.stale }}</p>
      </aside>
    </form>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: 32px;
  align-items: start;
}
.part {
  margin-bottom: 18px;
  padding: 18px 22px 8px;
  border: 1px solid var(--line);
  background: var(--card);
}
.effect {
  position: sticky;
  top: 16px;
  display: grid;
  gap: 8px;
  max-height: calc(100vh - 32px);
  padding: 16px 18px;
  overflow: auto;
  border: 1px solid var(--line);
  border-top: 4px solid var(--oak);
  background: var(--card);
}
.sum {
  font: 600 18px var(--heading);
}
.odd {
  color: var(--acorn-text);
}
.effect ul {
  margin: 0;
  padding-left: 18px;
}
</style>
