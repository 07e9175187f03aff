<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../../../text/desk'
import { CHIPS, FURTHER, TOTALS, type Filter } from './board-filters'
import type { ListCounts } from './use-tally'

const props = defineProps<{ counts: ListCounts; chosen: number; shown: number }>()
const filter = defineModel<Filter | undefined>('filter')
const search = defineModel<string>('search', { required: true })
const t = text.board

/** The usual chips, of the others those that have somebody, and the one that is open. */
const names = computed(() => [...CHIPS, ...FURTHER.filter((name) => name === filter.value || props.counts[name as keyof ListCounts] > 0), ...TOTALS.filter((name) => name === filter.value)])
</script>

<template>
  <div class="filters">
    <div role="group" :aria-label="t.filters" class="chips">
      <ElButton :aria-pressed="!filter" @click="filter = undefined">{{ t.everybody }} <span>{{ counts.everybody }}</span></ElButton>
      <ElButton
        v-for="name in names"
        :key="name"
        :class="{ pressing: name === 'overdue' && counts.overdue > 0 }"
        :aria-pressed="filter === name"
        @click="filter = filter === name ? undefined : name">
        {{ t.lists[name] }} <span>{{ counts[name as keyof ListCounts] }}</span>
      </ElButton>
      <ElButton v-if="chosen > 0" :aria-pressed="filter === 'chosen'" @click="filter = filter === 'chosen' ? undefined : 'chosen'">{{ t.lists.chosen }} <span>{{ chosen }}</span></ElButton>
    </div>
    <div class="side">
      <ElInput id="board-find" v-model="search" class="find" type="search" :aria-label="t.find" :placeholder="t.find" @keydown.esc="search = ''" />
      <slot />
    </div>
    <span class="hidden-text" role="status">{{ t.showing(shown, counts.everybody) }}</span>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 8px 12px;
  margin-bottom: 10px;
}
.chips,
.side {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.chips .pressing span span {
  color: var(--rowan);
}
.side .find {
  width: 150px;
}
</style>
