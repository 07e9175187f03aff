<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { desk, type AuditQuery, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import { copy } from '../../copy'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import ChoiceField from '../../fields/ChoiceField.vue'
import DateField from '../../fields/DateField.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'

type Line = Schemas['AuditLine']

/** Who did, saw or took away what, the newest first. */
const t = text.audit
const WAIT_MILLISECONDS = 300
const find = ref('')
const words = refDebounced(find, WAIT_MILLISECONDS)
const account = ref(0)
const kind = ref<Line['kind'] | null>(null)
const from = ref('')
const until = ref('')
const checked = ref<Schemas['AuditChecked']>()
const checking = ref(false)
const { value: team } = useRead(['team'], desk.team)
const people = computed(() => [{ value: 0, label: t.everybody }, ...(team.value?.members ?? []).map((one) => ({ value: one.member.id, label: one.member.name }))])
const kinds = computed(() => [{ value: null, label: t.all }, ...Object.entries(t.kinds).map(([value, label]) => ({ value: value as Line['kind'] | null, label }))])
const query = computed<AuditQuery>(() => ({ account: account.value || undefined, kind: kind.value ?? undefined, find: words.value.trim() || undefined, from: from.value || undefined, until: until.value || undefined }))
const { value: page, problem, load } = useRead(computed(() => ['audit', query.value]), () => desk.audit(query.value), { fresh: true })
const earlier = ref<Line[]>([])
const more = ref(false)
watch(page, (now) => {
  earlier.value = []
  more.value = now?.more ?? false
})
const lines = computed(() => [...(page.value?.entries ?? []), ...earlier.value])
const narrowed = computed(() => Object.values(query.value).some((value) => value !== undefined))
const csv = computed(() => `/api/audit.csv?${new URLSearchParams(Object.entries(query.value).filter(([, value]) => value !== undefined).map(([key, value]) => [key, String(value)]))}`)
const did = (line: Line) => (line.kind === 'REFUSED' ? t.triedTo(line.words) : line.status === 401 ? t.keptOut : line.words)

async function showEarlier() {
  try {
    const next = await desk.audit({ ...query.value, before: lines.value[lines.value.length - 1]?.number })
    earlier.value = [...earlier.value, ...next.entries]
    more.value = next.more
  } catch (error) {
    sayProblem(error)
  }
}

async function check() {
  checking.value = true
  try {
    checked.value = await desk.checkTrail()
  } catch (error) {
    sayProblem(error)
  } finally {
    checking.value = false
  }
}
</script>

<template>
  <div class="page">
    <header>
      <div><h1>{{ t.title }}</h1><p class="quiet">{{ t.intro }}</p></div>
      <div class="actions">
        <ElButton :loading="checking" @click="check">{{ t.check }}</ElButton>
        <a class="button" :href="csv" download>{{ t.take }}</a>
      </div>
    </header>
    <div v-if="checked" class="checked" :class="{ broken: checked.wrongAt }" role="status">
      <p v-if="checked.wrongAt" class="error">{{ t.broken(checked.wrongAt) }}</p>
      <template v-else>
        <p>{{ t.whole(checked.entries) }}</p>
        <p class="quiet">{{ t.head }}</p>
        <p><span class="mono">{{ checked.head }}</span> <ElButton size="small" @click="copy(checked.head).then(() => say(text.round.copied))">{{ t.copy }}</ElButton></p>
      </template>
    </div>
    <div class="tools">
      <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      <ChoiceField v-model="account" filterable :choices="people" :label="t.who" />
      <ChoiceField v-model="kind" :choices="kinds" :label="t.kind" />
      <label class="day" for="audit-from">{{ t.from }}</label><DateField id="audit-from" v-model="from" />
      <label class="day" for="audit-until">{{ t.until }}</label><DateField id="audit-until" v-model="until" />
    </div>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!page && !problem" />
    <EmptyPart v-if="page && lines.length === 0" :words="narrowed ? t.noneFits : t.none" />
    <table v-if="lines.length > 0" class="plain">
      <thead><tr><th scope="col">{{ t.when }}</th><th scope="col">{{ t.who }}</th><th scope="col">{{ t.what }}</th><th scope="col">{{ t.about }}</th><th scope="col">{{ t.where }}</th></tr></thead>
      <tbody>
        <tr v-for="line in lines" :key="line.number">
          <td class="when">{{ dayAndTime(line.at) }}</td>
          <td>{{ line.who }}</td>
          <td :class="{ kept: line.kind === 'REFUSED' || line.status === 401 }">{{ did(line) }}</td>
          <td class="about">{{ line.subject }}</td>
          <td class="mono">{{ line.caller }}</td>
        </tr>
      </tbody>
    </table>
    <ElButton v-if="more" @click="showEarlier">{{ t.earlier }}</ElButton>
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  gap: 10px;
  align-items: center;
}
.checked {
  margin: 10px 0;
  padding: 8px 12px;
  border-left: 5px solid var(--leaf);
  background: var(--card);
  overflow-wrap: anywhere;
}
.broken {
  border-color: var(--rowan);
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 10px 0;
}
.find {
  width: 260px;
}
.day {
  align-self: center;
}
.tools .date-field,
.tools .choice-field {
  width: 170px;
}
.when {
  white-space: nowrap;
}
.about {
  overflow-wrap: anywhere;
}
.kept {
  color: var(--rowan);
}
</style>
