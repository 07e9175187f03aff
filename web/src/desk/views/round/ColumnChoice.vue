<script setup lang="ts">
import type { BoardView } from '../../../api/desk'
import { text } from '../../../text/desk'
import MenuBox from '../../../ui/MenuBox.vue'
import { FACTS, type Fact } from './use-columns'

defineProps<{ board: BoardView; facts: Fact[]; hiddenItems: number[] }>()
defineEmits<{ fact: [fact: Fact]; item: [id: number] }>()
const t = text.board
</script>

<template>
  <MenuBox :label="t.columns" small>
    <div class="list">
      <label v-for="item in board.items" :key="item.id"><input type="checkbox" :checked="!hiddenItems.includes(item.id)" @change="$emit('item', item.id)" /> {{ item.title }}</label>
      <hr />
      <label v-for="fact in FACTS" :key="fact"><input type="checkbox" :checked="facts.includes(fact)" @change="$emit('fact', fact)" /> {{ t.facts[fact] }}</label>
    </div>
  </MenuBox>
</template>

<style scoped>
.list {
  display: grid;
  gap: 4px;
  padding: 6px 14px;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 28px;
}
hr {
  width: 100%;
  border: 0;
  border-top: 1px solid var(--line);
}
</style>
