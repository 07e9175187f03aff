<script setup lang="ts">
import { ref } from 'vue'
import { desk, type Claim, type PanelFile } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say, sayProblem } from '../../say'
import { may } from '../../use-session'

/** Whose is it? One claimed sending, and the yes or no to it; both can be taken back. */
const props = defineProps<{ file: PanelFile; person: string }>()
const emit = defineEmits<{ decided: [to: Claim] }>()
const t = text.claims
const busy = ref(false)

async function set(from: Claim, to: Claim, words: string) {
  busy.value = true
  try {
    await desk.decideClaim(props.file.submissionId, from, to)
    emit('decided', to)
    say(words, { label: text.panel.undo, run: () => void set(to, from, from === 'OPEN' ? t.open : t.kept) })
  } catch (error) {
    sayProblem(error)
  } finally {
    busy.value = false
  }
}

const decide = (to: Claim) => set(props.file.claim!, to, to === 'ACCEPTED' ? t.accepted(props.person) : to === 'DECLINED' ? t.kept : t.open)
defineExpose({ yes: () => decide('ACCEPTED'), no: () => decide('DECLINED') })
</script>

<template>
  <div class="claim" role="group" :aria-label="t.title">
    <template v-if="file.claim === 'OPEN'">
      <p>{{ t.said(file.declaredAs ?? '', person) }}</p>
      <div class="actions">
        <ElButton v-if="may('CHANGE')" type="primary" size="small" :disabled="busy" @click="decide('ACCEPTED')">{{ t.yes(person) }}</ElButton>
        <ElButton v-if="may('CHANGE')" size="small" :disabled="busy" @click="decide('DECLINED')">{{ t.no }}</ElButton>
      </div>
    </template>
    <template v-else>
      <p>{{ t.declined(file.declaredAs ?? '') }}</p>
      <ElButton v-if="may('CHANGE')" size="small" :disabled="busy" @click="decide('OPEN')">{{ t.again }}</ElButton>
    </template>
  </div>
</template>

<style scoped>
.claim {
  display: grid;
  gap: 8px;
  justify-items: start;
  margin: 8px 0;
  padding: 10px 12px;
  border-left: 4px solid var(--acorn);
  background: var(--tint);
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
