<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import DryRunTable from './DryRunTable.vue'

/** Says what opening a round will do before it does it. */
const props = defineProps<{ roundId?: number; title: string; opening: Schemas['OpeningPreview']; open: () => Promise<void> }>()
const emit = defineEmits<{ leave: [] }>()
const t = text.compose.opening
const busy = ref(false)

async function go() {
  busy.value = true
  await props.open()
  busy.value = false
}
</script>

<template>
  <ElDialog :model-value="true" :title="t.title(title)" width="640" append-to-body @close="emit('leave')">
    <ul>
      <li>{{ t.people(opening.people) }}</li>
      <li>{{ opening.letters > 0 ? t.letters(opening.letters) : t.noLetters }}</li>
      <li v-if="opening.reminders > 0">{{ t.reminders(opening.reminders) }}</li>
      <li v-if="opening.openLink">{{ t.openLink }}</li>
    </ul>
    <DryRunTable v-if="roundId && (opening.reminders > 0 || opening.letters > 0)" :round-id="roundId" />
    <template #footer>
      <ElButton @click="emit('leave')">{{ t.leave }}</ElButton>
      <ElButton type="primary" :loading="busy" @click="go">{{ t.go }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 20px;
}
</style>
