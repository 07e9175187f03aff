<script setup lang="ts">
import { text } from '../../../text/desk'
import type { Filter } from './use-board-rows'

defineProps<{ counts: Record<Filter, number>; total: number; shown: number }>()
const filter = defineModel<Filter | undefined>('filter')
const search = defineModel<string>('search', { required: true })
const t = text.board
const names: Filter[] = ['owes', 'overdue', 'toCheck', 'neverOpened']
</script>

<template>
  <div class="filters">
    <div role="group" :aria-label="t.filters" class="chips">
      <button type="button" :aria-pressed="!filter" @click="filter = undefined">{{ t.everybody }} <span>{{ total }}</span></button>
      <button v-for="name in names" :key="name" type="button" :class="{ pressing: name === 'overdue' && counts.overdue > 0 }" :aria-pressed="filter === name" @click="filter = filter === name ? undefined : name">
        {{ t[name] }} <span>{{ counts[name] }}</span>
      </button>
    </div>
    <input v-model="search" class="input find" type="search" :aria-label="t.find" :placeholder="t.find" @keydown.esc="search = ''" />
    <span class="hidden-text" role="status">{{ t.showing(shown, total) }}</span>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px 20px;
  margin-bottom: 10px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.chips button {
  min-height: 36px;
  padding: 2px 12px;
  border: 1px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  cursor: pointer;
}
.chips button span {
  margin-left: 4px;
  color: var(--slate);
}
.chips button.pressing span {
  color: var(--rowan);
}
.chips button[aria-pressed='true'] {
  border-color: var(--oak);
  box-shadow: inset 0 -4px var(--oak);
  background: var(--tint);
  font-weight: 600;
}
.find {
  width: 220px;
}
</style>
