<script setup lang="ts">
import { computed } from 'vue'
import type { BoardView, Row, Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { tileOf } from '../../../shared/tile'
import { dayAndTime, shortDay } from '../../../shared/time'
import WeaveTile from '../../../shared/WeaveTile.vue'
import { standingWords, tileWords } from './standing-words'
import type { Fact } from './use-columns'

const props = defineProps<{ board: BoardView; row: Row; items: { item: Schemas['BoardItem']; n: number }[]; facts: Fact[]; shown: boolean; chosen: boolean; tall: boolean; narrow: boolean; unreached?: Schemas['Unreachable'] }>()
const emit = defineEmits<{ show: [id: number]; choose: [id: number, range: boolean]; move: [by: number] }>()
const t = text.round
const words = computed(() => standingWords(props.row))
const tiles = computed(() => props.items.map(({ item, n }) => ({ item, tile: tileOf(props.row.tiles[n] ?? 0) })))

function fact(name: Fact): string {
  const { row } = props
  if (name === 'files') return row.files ? String(row.files) : ''
  if (name === 'last') return row.lastArrival ? dayAndTime(row.lastArrival) : ''
  return name === 'deadline' ? shortDay(row.deadline, props.board.zone) : row[name]
}
</script>

<template>
  <tr :class="{ shown, chosen, tall, narrow, removed: row.removed }" @click="emit('show', row.id)">
    <td class="tick" @click.stop>
      <input type="checkbox" :checked="chosen" :aria-label="text.acts.choose(row.name)" @click="emit('choose', row.id, ($event as MouseEvent).shiftKey)" />
    </td>
    <th scope="row">
      <button
        :id="`person-${row.id}`"
        class="person"
        type="button"
        :aria-expanded="shown"
        @click.stop="emit('show', row.id)"
        @keydown.down.prevent="emit('move', 1)"
        @keydown.up.prevent="emit('move', -1)"
        @keydown.x.exact.prevent="emit('choose', row.id, false)"
      >
        {{ row.name }}
      </button>
      <span v-if="row.organisation" class="quiet under">{{ row.organisation }}</span>
    </th>
    <td v-for="{ item, tile } in tiles" :key="item.id" class="item">
      <span class="cell">
        <WeaveTile :standing="tile.standing" :late="tile.late" :overdue="tile.overdue" :label="tileWords(item, tile)" />
        <span v-if="item.maxFiles > 1 && tile.files > 0" class="quiet" aria-hidden="true">{{ tile.files }}</span>
      </span>
    </td>
    <td class="standing">
      {{ words.main }}
      <RouterLink v-if="unreached" class="mark unreached" :to="{ name: 'post', query: { letter: unreached.letterId } }" :title="unreached.trouble" @click.stop>{{ text.post.unreachable }}</RouterLink>
      <span v-if="row.paused" class="mark">{{ text.acts.paused }}</span>
      <span v-if="row.claimed > 0" class="mark">{{ text.claims.mark(row.claimed) }}</span>
      <span v-if="words.time" :class="['line', words.tone]">{{ words.time }} {{ words.detail }}</span>
      <span v-if="row.extended" class="line quiet">{{ t.extended }} {{ shortDay(row.deadline, board.zone) }}</span>
      <span v-if="row.note" class="line quiet note" :title="row.note">{{ row.note }}</span>
    </td>
    <td v-for="name in facts" :key="name" :class="{ number: name === 'files', last: name === 'last' }">{{ fact(name) }}</td>
  </tr>
</template>

<style scoped>
.unreached {
  color: var(--rowan);
}
th,
td {
  height: 36px;
  padding: 0 12px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  font-weight: 400;
  vertical-align: middle;
}
tr {
  cursor: pointer;
}
tr:hover {
  background: var(--tint);
}
tr.chosen {
  background: var(--tint);
}
tr.shown {
  background: var(--leaf-tint);
  box-shadow: inset 4px 0 var(--leaf);
}
tr.removed {
  color: var(--slate);
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
.under,
.line {
  font-size: 15px;
  line-height: 1.3;
}
/* One line a row; what does not fit is told in full when the row is tall or its basket open. */
tr:not(.tall) th,
tr:not(.tall) .standing {
  max-width: 300px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
tr:not(.tall) .person {
  display: inline;
  margin-right: 8px;
}
tr:not(.tall) .line {
  margin-left: 8px;
}
.tall th,
.tall td {
  padding: 7px 12px;
}
.tall .under,
.tall .line {
  display: block;
}
.note {
  max-width: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.mark {
  padding: 0 6px;
  border: 1px solid var(--line-strong);
  border-radius: var(--corner);
  color: var(--slate);
  font-size: 14px;
}
.item {
  max-width: 130px;
}
.narrow:not(.tall) .under {
  display: none;
}
.tick input {
  display: block;
}
.cell {
  display: flex;
  align-items: center;
  gap: 5px;
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
.tick {
  width: 34px;
  padding-right: 0;
}
</style>
