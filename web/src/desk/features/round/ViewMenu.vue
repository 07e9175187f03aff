<script setup lang="ts">
import type { BoardView } from '../../../api/desk'
import { text } from '../../../text/desk'
import PopoverMenu from '../../fields/PopoverMenu.vue'
import { GROUPINGS, type GroupBy } from './board-filters'
import { FACTS, type Fact } from './use-columns'

/** How the board is shown: its groups, the height of its rows, its columns. */
defineProps<{ board: BoardView; facts: Fact[]; hiddenItems: number[] }>()
defineEmits<{ fact: [fact: Fact]; item: [id: number] }>()
const groupBy = defineModel<GroupBy>('groupBy', { required: true })
const tall = defineModel<boolean>('tall', { required: true })
const t = text.board
</script>

<template>
  <PopoverMenu :label="t.view" small>
    <div class="list">
      <strong>{{ t.groupBy }}</strong>
      <ElRadioGroup v-model="groupBy" :aria-label="t.groupBy">
        <ElRadio v-for="one in GROUPINGS" :key="one" :value="one">{{ t.groupings[one] }}</ElRadio>
      </ElRadioGroup>
      <strong>{{ t.rows }}</strong>
      <ElCheckbox v-model="tall">{{ t.tall }}</ElCheckbox>
      <strong>{{ t.columns }}</strong>
      <ElCheckbox v-for="item in board.items" :key="item.id" :model-value="!hiddenItems.includes(item.id)" @change="$emit('item', item.id)">{{ item.title }}</ElCheckbox>
      <ElCheckbox v-for="fact in FACTS" :key="fact" :model-value="facts.includes(fact)" @change="$emit('fact', fact)">{{ t.facts[fact] }}</ElCheckbox>
    </div>
  </PopoverMenu>
</template>

<style scoped>
.list {
  display: grid;
  max-height: 62vh;
  overflow: auto;
}
strong:not(:first-child) {
  margin-top: 8px;
}
</style>
