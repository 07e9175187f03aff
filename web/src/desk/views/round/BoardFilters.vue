<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../../../text/desk'
import { CHIPS, FURTHER, type Filter, type GroupBy } from './board-filters'
import type { ListCounts } from './use-tally'

const props = defineProps<{ counts: ListCounts; chosen: number; shown: number }>()
const filter = defineModel<Filter | undefined>('filter')
const search = defineModel<string>('search', { required: true })
const groupBy = defineModel<GroupBy>('groupBy', { required: true })
const t = text.board
const choices: GroupBy[] = ['', 'groups', 'organisation', 'standing']

/** The usual chips, and of the others those that have somebody or are open. */
const names = computed(() => [...CHIPS, ...FURTHER.filter((name) => (name === filter.value || (['paused', 'removed'].includes(name) && props.counts[name as 'paused'] > 0)))])
</script>

<template>
  <div class="filters">
    <div role="group" :aria-label="t.filters" class="chips">
      <button type="button" :aria-pressed="!filter" @click="filter = undefined">{{ t.everybody }} <span>{{ counts.everybody }}</span></button>
      <button
        v-for="name in names"
        :key="name"
        type="button"
        :class="{ pressing: name === 'overdue' && counts.overdue > 0 }"
        :aria-pressed="filter === name"
        @click="filter = filter === name ? undefined : name"
      >
        {{ t.lists[name] }} <span>{{ counts[name as keyof ListCounts] }}</span>
      </button>
      <button v-if="chosen > 0" type="button" :aria-pressed="filter === 'chosen'" @click="filter = filter === 'chosen' ? undefined : 'chosen'">{{ t.lists.chosen }} <span>{{ chosen }}</span></button>
    </div>
    <div class="side">
      <label>{{ t.groupBy }}
        <select v-model="groupBy" class="input">
          <option v-for="choice in choices" :key="choice" :value="choice">{{ t.groupings[choice] }}</option>
        </select>
      </label>
      <input id="board-find" v-model="search" class="input find" type="search" :aria-label="t.find" :placeholder="t.find" @keydown.esc="search = ''" />
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
.chips button.pressing span {
  color: var(--rowan);
}
label {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  color: var(--slate);
  font-size: 15px;
}
.side .input {
  width: auto;
  min-height: 36px;
}
.side .find {
  width: 150px;
}
</style>
