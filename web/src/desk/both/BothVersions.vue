<script setup lang="ts">
import { writtenDate } from '../../shared/dates'
import { text } from '../../text/desk'
import type { Conflict } from './merge'

/** What two windows, or two people, changed differently: both versions side by side, one to keep. */
const props = defineProps<{ conflicts: Conflict[]; names: Record<string, string>; say?: (field: string, value: unknown) => string | undefined }>()
const emit = defineEmits<{ decide: [conflict: Conflict, theirs: boolean] }>()
const t = text.both

function words(value: unknown): string {
  if (Array.isArray(value)) return value.length > 0 ? value.map(words).join('; ') : t.empty
  if (typeof value === 'string' && /^\d{4}-\d\d-\d\d$/.test(value)) return writtenDate(value)
  if (typeof value === 'boolean') return value ? t.yes : t.no
  if (value && typeof value === 'object') return Object.values(value).filter((one) => typeof one !== 'object' && one !== '').map(words).join(', ')
  return value === '' || value === null || value === undefined ? t.empty : String(value)
}

const valueOf = (one: Conflict, theirs: boolean) => {
  const value = theirs ? one.theirs : one.mine
  return props.say?.(one.field, value) ?? words(value)
}
</script>

<template>
  <ElDialog :model-value="true" :title="t.title" width="720" append-to-body :show-close="false" :close-on-click-modal="false" :close-on-press-escape="false">
    <p>{{ t.help }}</p>
    <section v-for="one in conflicts" :key="one.field">
      <h3>{{ names[one.field] ?? one.field }}</h3>
      <div class="sides">
        <div v-for="theirs in [false, true]" :key="String(theirs)" class="side">
          <p class="quiet">{{ theirs ? t.theirs : t.mine }}</p>
          <p class="value">{{ valueOf(one, theirs) }}</p>
          <ElButton size="small" :aria-label="`${t.keep}: ${theirs ? t.theirs : t.mine}, ${names[one.field] ?? one.field}`" @click="emit('decide', one, theirs)">{{ t.keep }}</ElButton>
        </div>
      </div>
    </section>
  </ElDialog>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  margin-bottom: 14px;
}
.side {
  padding: 10px 12px;
  border: 1px solid var(--line);
}
h3 {
  margin: 14px 0 6px;
}
.value {
  margin: 2px 0 10px;
  max-height: 30vh;
  overflow: auto;
  overflow-wrap: anywhere;
  white-space: pre-line;
}
</style>
