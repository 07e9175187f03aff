<script setup lang="ts">
import { useWindowVirtualizer } from '@tanstack/vue-virtual'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { desk, type BoardView, type Row } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'
import { ariaSort, clicked, type Sort, type SortBy } from './board-sort'
import BoardRow from './BoardRow.vue'
import type { Line } from './use-board-rows'
import type { Fact } from './use-columns'

const props = defineProps<{
  board: BoardView
  lines: Line[]
  rows: Map<number, Row>
  pulse: number
  shown?: number
  facts: Fact[]
  hiddenItems: number[]
  tall: boolean
  chosen: Set<number>
}>()
const emit = defineEmits<{ show: [basket: number]; hold: [held: boolean]; choose: [id: number, range: boolean]; chooseAll: [] }>()
const sort = defineModel<Sort>('sort', { required: true })
const t = text.round
const ROW_HEIGHT = 36
const TALL_HEIGHT = 58
const GROUP_HEIGHT = 38
const WHOLE = 200
const roundId = Number(useRoute().params.id)
const table = useTemplateRef('table')
const top = ref(0)

const { value: unreachable } = useRead(['unreachable', roundId], () => desk.unreachable(roundId), { on: (event) => event.type === 'letter' || event.type === 'contact' })
const unreached = computed(() => new Map((unreachable.value ?? []).map((one) => [one.basketId, one])))
const items = computed(() => props.board.items.map((item, n) => ({ item, n })).filter(({ item }) => !props.hiddenItems.includes(item.id)))
const width = computed(() => items.value.length + props.facts.length + 3)
const ids = computed(() => props.lines.flatMap((line) => (line.kind === 'row' ? [line.id] : [])))
const everyChosen = computed(() => ids.value.length > 0 && ids.value.every((id) => props.chosen.has(id)))

/** Only the rows near the window are in the page, however many there are. */
const window_ = useWindowVirtualizer(
  computed(() => ({
    count: props.lines.length,
    estimateSize: (n: number) => (props.lines[n]?.kind === 'group' ? GROUP_HEIGHT : props.tall ? TALL_HEIGHT : ROW_HEIGHT),
    getItemKey: (n: number) => keyOf(props.lines[n]!, n),
    // A board of usual size is there as a whole, so that the browser's own search and printing find everybody.
    overscan: props.lines.length <= WHOLE ? WHOLE : 8,
    scrollMargin: top.value,
  })),
)
const visible = computed(() => window_.value.getVirtualItems())
const before = computed(() => (visible.value.length ? visible.value[0]!.start - top.value : 0))
const after = computed(() => (visible.value.length ? window_.value.getTotalSize() - (visible.value.at(-1)!.end - top.value) : 0))

function keyOf(line: Line, n: number): string {
  return line.kind === 'row' ? `${line.id}-${n}` : `group ${line.name}`
}

function place() {
  top.value = table.value ? table.value.tBodies[0]!.getBoundingClientRect().top + scrollY : 0
}

onMounted(place)
watch(() => [props.shown, props.lines.length === 0], () => void nextTick(place))

const rowOf = (id: number): Row | undefined => (props.pulse >= 0 ? props.rows.get(id) : undefined)

/** Moves the keyboard from one row to the next, also to one that is not in the page yet. */
async function move(from: number, by: number) {
  let n = from + by
  while (props.lines[n]?.kind === 'group') n += by
  const line = props.lines[n]
  if (line?.kind !== 'row') return
  window_.value.scrollToIndex(n, { align: 'auto' })
  await nextTick()
  requestAnimationFrame(() => document.getElementById(`person-${line.id}`)?.focus())
}

/** Rows hold still while the pointer or the keyboard is among them. */
const among = { pointer: false, keyboard: false }

function hold(change: Partial<typeof among>) {
  Object.assign(among, change)
  emit('hold', among.pointer || among.keyboard)
}

function by(column: SortBy) {
  sort.value = clicked(sort.value, column)
}

/** Gives the keyboard to the first row. */
function enter() {
  void move(-1, 1)
}

defineExpose({ enter, ids })
</script>

<template>
  <div class="scroll" role="region" :aria-label="board.title">
    <table ref="table" :aria-rowcount="lines.length + 1">
      <thead>
        <tr>
          <th scope="col" class="tick"><input type="checkbox" :checked="everyChosen" :aria-label="text.acts.chooseAll" @change="emit('chooseAll')" /></th>
          <th scope="col" :aria-sort="ariaSort(sort, 'name')">
            <button class="sort" type="button" :aria-label="text.board.sortBy(t.person)" @click="by('name')">{{ t.person }}</button>
          </th>
          <th v-for="{ item } in items" :key="item.id" scope="col" class="item" :class="{ optional: !item.required }" :aria-sort="ariaSort(sort, `item-${item.id}`)">
            <ElTooltip :content="item.required ? item.title : `${item.title}, ${t.optional}`" :show-after="300">
              <button class="sort" type="button" :aria-label="text.board.sortBy(item.title)" @click="by(`item-${item.id}`)">{{ item.title }}</button>
            </ElTooltip>
          </th>
          <th scope="col" :aria-sort="ariaSort(sort, 'pressing')">
            <button class="sort" type="button" :aria-label="text.board.sortBy(t.standing)" @click="by('pressing')">{{ t.standing }}</button>
          </th>
          <template v-if="!shown">
            <th v-for="fact in facts" :key="fact" scope="col" :class="{ number: fact === 'files' }" :aria-sort="ariaSort(sort, fact)">
              <button class="sort" type="button" :aria-label="text.board.sortBy(text.board.facts[fact])" @click="by(fact)">{{ text.board.facts[fact] }}</button>
            </th>
          </template>
        </tr>
      </thead>
      <tbody @pointerenter="hold({ pointer: true })" @pointerleave="hold({ pointer: false })" @focusin="hold({ keyboard: true })" @focusout="hold({ keyboard: false })">
        <tr v-if="lines.length === 0">
          <td :colspan="width" class="none quiet">{{ text.board.none }}</td>
        </tr>
        <tr v-if="before > 0" class="gap" aria-hidden="true"><td :colspan="width" :style="{ height: `${before}px` }"></td></tr>
        <template v-for="item in visible" :key="String(item.key)">
          <tr v-if="lines[item.index]?.kind === 'group'" class="group" :aria-rowindex="item.index + 2">
            <th :colspan="width" scope="rowgroup">{{ (lines[item.index] as { name: string }).name }} <span class="quiet">{{ (lines[item.index] as { count: number }).count }}</span></th>
          </tr>
          <BoardRow
            v-else-if="lines[item.index]?.kind === 'row' && rowOf((lines[item.index] as { id: number }).id)"
            :ref="(row) => row && window_.measureElement((row as unknown as { $el: HTMLElement }).$el)"
            :data-index="item.index"
            :aria-rowindex="item.index + 2"
            :board="board"
            :row="rowOf((lines[item.index] as { id: number }).id)!"
            :items="items"
            :facts="shown ? [] : facts"
            :shown="(lines[item.index] as { id: number }).id === shown"
            :unreached="unreached.get((lines[item.index] as { id: number }).id)"
            :tall="tall"
            :narrow="!!shown"
            :chosen="chosen.has((lines[item.index] as { id: number }).id)"
            @show="(id) => emit('show', id)"
            @choose="(id, range) => emit('choose', id, range)"
            @move="(by) => move(item.index, by)"
          />
        </template>
        <tr v-if="after > 0" class="gap" aria-hidden="true"><td :colspan="width" :style="{ height: `${after}px` }"></td></tr>
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
th {
  padding: 7px 12px;
  border-bottom: 1px solid var(--line);
  text-align: left;
  font-weight: 400;
}
thead th {
  color: var(--slate);
  font-size: 15px;
  line-height: 1.3;
  vertical-align: bottom;
}
.none {
  padding: 14px 12px;
}
.gap td {
  padding: 0;
}
.group th {
  padding: 8px 12px 4px;
  background: var(--tint);
  font: 600 16px var(--heading);
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
.item {
  max-width: 120px;
}
.item .sort {
  display: -webkit-box;
  max-width: 100%;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-height: 1.25;
  text-align: left;
}
.optional {
  font-style: italic;
}
.quiet {
  color: var(--slate);
}
.number {
  text-align: right;
}
.tick {
  width: 34px;
  padding-right: 0;
}
</style>
