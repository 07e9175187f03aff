<script setup lang="ts">
import type { BoardView } from '../../../api/desk'
import { text } from '../../../text/desk'
import { FACTS, type Fact } from './use-columns'

defineProps<{ board: BoardView; facts: Fact[]; hiddenItems: number[] }>()
defineEmits<{ fact: [fact: Fact]; item: [id: number] }>()
const t = text.board
</script>

<template>
  <details class="columns" @keydown.esc="($event.currentTarget as HTMLDetailsElement).open = false">
    <summary class="button small">{{ t.columns }}</summary>
    <div class="menu">
      <label v-for="item in board.items" :key="item.id"><input type="checkbox" :checked="!hiddenItems.includes(item.id)" @change="$emit('item', item.id)" /> {{ item.title }}</label>
      <hr />
      <label v-for="fact in FACTS" :key="fact"><input type="checkbox" :checked="facts.includes(fact)" @change="$emit('fact', fact)" /> {{ t.facts[fact] }}</label>
    </div>
  </details>
</template>

<style scoped>
.columns {
  position: relative;
}
summary {
  min-height: 36px;
  list-style: none;
}
summary::-webkit-details-marker {
  display: none;
}
.menu {
  position: absolute;
  right: 0;
  z-index: 5;
  display: grid;
  gap: 4px;
  width: 280px;
  max-height: 60vh;
  margin-top: 4px;
  padding: 12px 14px;
  overflow: auto;
  border: 1px solid var(--line-strong);
  background: var(--card);
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 28px;
}
input {
  width: 18px;
  height: 18px;
  accent-color: var(--leaf);
}
hr {
  width: 100%;
  border: 0;
  border-top: 1px solid var(--line);
}
</style>
