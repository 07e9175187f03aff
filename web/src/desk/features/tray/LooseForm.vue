<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import FieldBox from '../compose/FieldBox.vue'

/** Says whose papers are that came without a link, and what they are. */
const props = defineProps<{ entries: Schemas['TrayEntry'][] }>()
const emit = defineEmits<{ decided: []; undone: [] }>()
const t = text.tray
const form = reactive<{ round: number | null; person: number | null; item: number | null }>({ round: null, person: null, item: null })
const busy = ref(false)
const tried = ref(false)
const problem = ref<ApiProblem>()
const one = computed(() => (props.entries.length === 1 ? props.entries[0] : undefined))
const ids = computed(() => props.entries.map((entry) => entry.files[0]!.id))

const { value: all } = useRead(['rounds'], desk.rounds)
const rounds = computed(() => (all.value ?? []).filter((round) => round.state === 'GATHERING').map((round) => ({ value: round.id as number | null, label: round.title })))
const { value: choices } = useRead(computed(() => ['tray-choices', form.round ?? 0]), () => desk.trayChoices(form.round!), { when: computed(() => form.round !== null) })
const people = computed(() => (choices.value?.people ?? []).map((person) => ({ value: person.id as number | null, label: person.name })))
const items = computed(() => (choices.value?.items ?? []).map((item) => ({ value: item.id as number | null, label: item.name })))

watch(() => props.entries.map((entry) => entry.key).join(), () => {
  const suggested = props.entries[0]
  form.round = suggested?.roundId || (rounds.value.length === 1 ? rounds.value[0]!.value : null)
  form.person = suggested?.suggestion.basketId ?? null
  form.item = one.value?.suggestion.itemId ?? null
  tried.value = false
  problem.value = undefined
}, { immediate: true })

function otherRound(to: number | null) {
  form.round = to
  form.person = null
  form.item = null
}

async function accept() {
  tried.value = true
  if (busy.value || form.person === null || form.item === null) return
  busy.value = true
  const filed = ids.value
  try {
    await desk.fileLoose({ ids: filed, basketId: form.person, itemId: form.item })
    say(t.decided(filed.length), { label: text.panel.undo, run: () => void desk.undoLoose(filed).then(() => { say(t.undone); emit('undone') }, sayProblem) })
    emit('decided')
  } catch (error) {
    problem.value = error as ApiProblem
    if (problem.value.errors.length === 0) sayProblem(error)
  }
  busy.value = false
}

async function out() {
  const id = ids.value[0]!
  try {
    await desk.looseOut(id)
    if (one.value?.foundOnDisk) say(t.putBackDone)
    else say(t.outDone, { label: text.panel.undo, run: () => void desk.looseBack(id).then(() => { say(t.undone); emit('undone') }, sayProblem) })
    emit('decided')
  } catch (error) {
    sayProblem(error)
  }
}

defineExpose({ accept })
</script>

<template>
  <form novalidate @submit.prevent="accept">
    <FieldBox id="loose-round" v-slot="{ attrs }" :label="t.round" :error="tried && form.round === null ? t.chooseRound : problem?.at('roundId')">
      <ChoiceField v-bind="attrs" :model-value="form.round" filterable :choices="rounds" @update:model-value="otherRound" />
    </FieldBox>
    <div class="pair">
      <FieldBox id="loose-person" v-slot="{ attrs }" :label="t.person" :hint="one ? one.suggestion.personWhy : ''" :error="tried && form.person === null ? t.choosePerson : problem?.at('basketId')">
        <ChoiceField v-bind="attrs" v-model="form.person" filterable :choices="people" />
      </FieldBox>
      <FieldBox id="loose-item" v-slot="{ attrs }" :label="t.item" :hint="one ? one.suggestion.itemWhy : ''" :error="tried && form.item === null ? t.chooseItem : problem?.at('itemId')">
        <ChoiceField v-bind="attrs" v-model="form.item" :choices="items" />
      </FieldBox>
    </div>
    <div class="actions">
      <ElButton type="primary" native-type="submit" :loading="busy">{{ entries.length > 1 ? t.acceptMany(entries.length) : t.accept }}</ElButton>
      <ElButton v-if="one" @click="out">{{ one.foundOnDisk ? t.putBack : t.out }}</ElButton>
    </div>
  </form>
</template>

<style scoped>
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
</style>
