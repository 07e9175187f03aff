<script setup lang="ts">
import { nextTick, ref, useTemplateRef } from 'vue'
import { limits } from '../../../api/limits'
import type { Row } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import BulkFrame from '../../BulkFrame.vue'
import SendLetters from '../post/SendLetters.vue'
import ExtendForm from './ExtendForm.vue'
import { ask } from '../../say'
import { useActs } from './use-acts'

/** What can be done to everybody chosen at once. */
const props = defineProps<{ roundId: number; rows: Row[]; all: number }>()
const emit = defineEmits<{ clear: [] }>()
const t = text.acts
const { act, tryAct } = useActs(props.roundId)
const form = ref<'extend' | 'note' | 'write'>()
const note = ref('')
const problem = ref<ApiProblem>()
const noteField = useTemplateRef('noteField')

async function extend(date: string | null, reason: string) {
  await act(props.rows, { kind: 'EXTEND', date, reason }, date ? text.panel.extended(date) : text.panel.unextend)
}

async function askNote() {
  form.value = form.value === 'note' ? undefined : 'note'
  problem.value = undefined
  await nextTick()
  noteField.value?.focus()
}

async function saveNote() {
  try {
    await act(props.rows, { kind: 'NOTE', text: note.value }, t.noted)
    form.value = undefined
  } catch (error) {
    problem.value = error as ApiProblem
  }
}

/** Asks first where everybody of the round is meant. */
async function confirmed(words: string): Promise<boolean> {
  return props.rows.length < props.all || props.all < 2 || ask(t.confirmAll(words, props.all))
}

async function set(kind: 'EXCUSE' | 'PAUSE' | 'REMOVE', on: boolean, words: string) {
  if (await confirmed(words)) await tryAct(props.rows, { kind, on }, words)
}
</script>

<template>
  <BulkFrame :label="t.chosen(rows.length)">
    <template #actions>
      <ElButton size="small" :aria-expanded="form === 'extend'" @click="form = form === 'extend' ? undefined : 'extend'">{{ text.panel.extend }}</ElButton>
      <ElButton size="small" :aria-expanded="form === 'write'" @click="form = form === 'write' ? undefined : 'write'">{{ text.post.write }}</ElButton>
      <ElButton v-if="rows.some((row) => !row.waived)" size="small" @click="set('EXCUSE', true, text.panel.excusedAll)">{{ t.excuse }}</ElButton>
      <ElButton v-if="rows.some((row) => row.waived)" size="small" @click="set('EXCUSE', false, text.panel.askedAgain)">{{ t.unexcuse }}</ElButton>
      <ElButton v-if="rows.some((row) => !row.paused)" size="small" @click="set('PAUSE', true, t.pausedNow)">{{ t.pause }}</ElButton>
      <ElButton v-if="rows.some((row) => row.paused)" size="small" @click="set('PAUSE', false, t.unpausedNow)">{{ t.unpause }}</ElButton>
      <ElButton size="small" :aria-expanded="form === 'note'" @click="askNote">{{ t.note }}</ElButton>
      <ElButton v-if="rows.some((row) => !row.removed)" size="small" @click="set('REMOVE', true, t.removedNow)">{{ t.remove }}</ElButton>
      <ElButton v-if="rows.some((row) => row.removed)" size="small" @click="set('REMOVE', false, t.putBackNow)">{{ t.putBack }}</ElButton>
      <ElButton type="primary" link size="small" @click="emit('clear')">{{ t.clear }}</ElButton>
    </template>
    <ExtendForm v-if="form === 'extend'" date="" reason="" :save="extend" @done="form = undefined" />
    <SendLetters v-if="form === 'write'" :key="rows.map((row) => row.id).join()" :round-id="roundId" :baskets="rows.map((row) => row.id)" @done="form = undefined" />
    <form v-if="form === 'note'" class="form" @submit.prevent="saveNote" @keydown.esc.stop="form = undefined">
      <label for="bulk-note">{{ t.noteLabel }}</label>
      <ElInput id="bulk-note" ref="noteField" v-model="note" :maxlength="limits.BasketChange.text.longest" :aria-invalid="!!problem" />
      <p v-if="problem" class="error" role="alert">{{ problem.at('text') || problem.detail }}</p>
      <span><ElButton type="primary" size="small" native-type="submit">{{ t.saveNote }}</ElButton></span>
    </form>
  </BulkFrame>
</template>

<style scoped>
.form {
  display: grid;
  gap: 6px;
}
</style>
