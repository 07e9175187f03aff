<script setup lang="ts">
import type { BoardView, Row } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime, shortDay } from '../../../ui/time'
import WeaveTile from '../../../ui/WeaveTile.vue'
import { standingWords, tileWords } from './standing-words'
import type { Sort } from './use-board-rows'

defineProps<{ board: BoardView; rows: Row[]; shown?: number }>()
defineEmits<{ show: [basket: number]; hold: [held: boolean] }>()
const sort = defineModel<Sort>('sort', { required: true })
const t = text.round
</script>

<template>
  <div class="scroll" tabindex="0" role="region" :aria-label="board.title">
    <table>
      <thead>
        <tr>
          <th scope="col" :aria-sort="sort === 'name' ? 'ascending' : undefined">
            <button class="sort" type="button" :aria-label="text.board.sortBy(t.person)" @click="sort = 'name'">{{ t.person }}</button>
          </th>
          <th v-for="item in board.items" :key="item.id" scope="col" class="item">
            {{ item.title }} <span class="quiet">{{ item.required ? '' : t.optional }}</span>
          </th>
          <th scope="col" :aria-sort="sort === 'pressing' ? 'descending' : undefined">
            <button class="sort" type="button" :aria-label="text.board.sortBy(t.standing)" @click="sort = 'pressing'">{{ t.standing }}</button>
          </th>
          <th v-if="!shown" scope="col" class="number" :aria-sort="sort === 'files' ? 'descending' : undefined">
            <button class="sort" type="button" :aria-label="text.board.sortBy(t.filesColumn)" @click="sort = 'files'">{{ t.filesColumn }}</button>
          </th>
          <th v-if="!shown" scope="col" :aria-sort="sort === 'last' ? 'descending' : undefined">
            <button class="sort" type="button" :aria-label="text.board.sortBy(t.lastIn)" @click="sort = 'last'">{{ t.lastIn }}</button>
          </th>
        </tr>
      </thead>
      <tbody @pointerenter="$emit('hold', true)" @pointerleave="$emit('hold', false)">
        <tr v-if="rows.length === 0">
          <td :colspan="board.items.length + 4" class="quiet">{{ text.board.none }}</td>
        </tr>
        <tr v-for="row in rows" :key="row.id" :class="{ shown: row.id === shown }" @click="$emit('show', row.id)">
          <th scope="row">
            <button :id="`person-${row.id}`" class="person" type="button" :aria-expanded="row.id === shown" @click.stop="$emit('show', row.id)">{{ row.name }}</button>
            <span v-if="row.organisation" class="quiet organisation">{{ row.organisation }}</span>
          </th>
          <td v-for="(tile, n) in row.tiles" :key="n" class="item">
            <span class="cell">
              <WeaveTile :standing="tile.standing" :late="tile.late" :overdue="tile.overdue" :label="tileWords(board.items[n]!, tile)" />
              <span v-if="board.items[n]!.maxFiles > 1 && tile.files > 0" class="quiet" aria-hidden="true">{{ tile.files }}</span>
            </span>
          </td>
          <td class="standing">
            {{ standingWords(row).main }}
            <span v-if="standingWords(row).time" :class="standingWords(row).tone">{{ standingWords(row).time }} {{ standingWords(row).detail }}</span>
            <span v-if="row.extended" class="quiet">{{ t.extended }} {{ shortDay(row.deadline, board.zone) }}</span>
          </td>
          <td v-if="!shown" class="number">{{ row.files || '' }}</td>
          <td v-if="!shown" class="last">{{ row.lastArrival ? dayAndTime(row.lastArrival) : '' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  border: 1px solid var(--line);
  background: var(--card);
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 7px 12px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  font-weight: 400;
  vertical-align: middle;
}
thead th {
  color: var(--slate);
  font-size: 15px;
  line-height: 1.3;
  vertical-align: bottom;
}
tbody tr {
  cursor: pointer;
}
tbody tr:hover {
  background: var(--tint);
}
tbody tr.shown {
  background: var(--leaf-tint);
  box-shadow: inset 4px 0 var(--leaf);
}
.sort {
  min-height: 24px;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  cursor: pointer;
}
.sort:hover {
  box-shadow: 0 2px var(--line-strong);
}
[aria-sort] .sort {
  box-shadow: 0 2px var(--oak);
  color: var(--bark);
}
.person {
  display: block;
  padding: 0;
  border: 0;
  background: none;
  font-weight: 600;
  text-align: left;
  cursor: pointer;
}
.organisation {
  font-size: 15px;
}
.item {
  max-width: 130px;
}
.cell {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
.standing span {
  display: block;
  font-size: 15px;
  line-height: 1.3;
}
.quiet {
  color: var(--slate);
}
.rowan {
  color: var(--rowan);
}
.acorn {
  color: var(--acorn-text);
}
.number {
  text-align: right;
}
.last {
  white-space: nowrap;
}
</style>
