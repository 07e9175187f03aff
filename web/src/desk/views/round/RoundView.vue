<script setup lang="ts">
import { ElDialog } from 'element-plus/es/components/dialog/index.mjs'
import 'element-plus/theme-chalk/el-dialog.css'
import 'element-plus/theme-chalk/el-overlay.css'
import { computed, nextTick, onMounted, reactive, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime, deadlineWords, zoneWords } from '../../../ui/time'
import RoundRuler from '../../../ui/RoundRuler.vue'
import FailureNote from '../../FailureNote.vue'
import { copy } from '../../copy'
import { say, sayProblem } from '../../say'
import { useKeys } from '../../use-keys'
import AddLateForm from './AddLateForm.vue'
import BasketPanel from './BasketPanel.vue'
import { isFilter, type Filter } from './board-filters'
import BoardCounts from './BoardCounts.vue'
import BoardFilters from './BoardFilters.vue'
import BoardLegend from './BoardLegend.vue'
import BoardTable from './BoardTable.vue'
import BulkBar from './BulkBar.vue'
import ColumnChoice from './ColumnChoice.vue'
import KeyHelp from './KeyHelp.vue'
import RoundLetters from './RoundLetters.vue'
import RoundMenu from './RoundMenu.vue'
import { useBoard } from './use-board'
import { useBoardRows } from './use-board-rows'
import { useColumns } from './use-columns'
import { useTicks } from './use-ticks'

const t = text.round
const route = useRoute()
const router = useRouter()
const roundId = Number(route.params.id)
const touched = ref(0)
const chosen = reactive(new Set<number>())
const shown = computed(() => (route.query.basket ? Number(route.query.basket) : undefined))
const filter = computed<Filter | undefined>({
  get: () => (isFilter(route.query.show) ? route.query.show : undefined),
  set: (show) => void router.replace({ query: { ...route.query, show } }),
})
const store = useBoard(roundId)
const { board, problem, load, rows, tally, pulse, letters } = store
const { ticks, sent } = useTicks(roundId, board, letters)
store.onChange((row) => {
  if (!row || row.id === shown.value) touched.value++
})
const { sort, groupBy, search, held, order, lines } = useBoardRows(store, filter, chosen)
const { chosen: columns, facts, toggleFact, toggleItem } = useColumns(roundId)
const counts = computed(() => (pulse.value >= 0 ? { ...tally.value.counts } : tally.value.counts))
const lists = computed(() => (pulse.value >= 0 ? { ...tally.value.lists } : tally.value.lists))
const finished = computed(() => (pulse.value >= 0 ? [...rows.values()].filter((row) => !row.removed && !row.walkIn && !row.waived && row.finishedAt).map((row) => row.finishedAt!) : []))
const chosenRows = computed(() => (pulse.value >= 0 ? [...chosen].map((id) => rows.get(id)).filter((row) => row !== undefined) : []))
const noLongerMoving = computed(() => board.value?.state === 'CLOSED' || board.value?.state === 'ARCHIVED')
const closing = ref(false)
const adding = ref(false)
const helping = ref(false)
const linkToCopy = ref('')
const table = useTemplateRef('table')
let lastChosen = 0

onMounted(load)
watch(() => board.value?.title, (title) => title && (document.title = `${title} – ${text.product}`))

useKeys({
  '?': () => (helping.value = true),
  j: () => table.value?.enter(),
  f: () => document.getElementById('board-find')?.focus(),
  c: chooseAll,
  o: () => (filter.value = filter.value === 'owes' ? undefined : 'owes'),
  w: () => void router.push({ name: 'review', params: { id: roundId } }),
  Escape: () => (shown.value ? void show(undefined) : chosen.clear()),
})

async function show(basket: number | undefined) {
  const before = shown.value
  await router.replace({ query: { ...route.query, basket } })
  await nextTick()
  if (!basket && before) document.getElementById(`person-${before}`)?.focus({ preventScroll: true })
}

/** Chooses or leaves one; with the shift key everybody from the last one on. */
function choose(id: number, range: boolean) {
  const here = order.value.indexOf(id)
  const there = order.value.indexOf(lastChosen)
  if (range && there >= 0) order.value.slice(Math.min(here, there), Math.max(here, there) + 1).forEach((one) => chosen.add(one))
  else if (!chosen.delete(id)) chosen.add(id)
  lastChosen = id
}

function chooseAll() {
  const all = order.value.every((id) => chosen.has(id))
  order.value.forEach((id) => (all ? chosen.delete(id) : chosen.add(id)))
}

async function copyOpenLink() {
  try {
    const { url } = await desk.openLink(roundId)
    if (await copy(url)) say(t.copied)
    else linkToCopy.value = url
  } catch (error) {
    sayProblem(error)
  }
}

async function change(action: 'close' | 'reopen') {
  closing.value = false
  try {
    await desk[action](roundId)
    await load()
    say(action === 'close' ? t.closedNow : t.reopenedNow, action === 'close' ? { label: text.panel.undo, run: () => void change('reopen') } : undefined)
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page round">
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <p v-if="!board && !problem" class="quiet">{{ text.loading }}</p>
    <template v-if="board">
      <header>
        <div>
          <h1>{{ board.title }}</h1>
          <p>
            {{ t.deadline }}: <strong>{{ deadlineWords(board.deadline, board.zone, board.dateOnly) }}</strong> <span class="quiet">{{ zoneWords(board.zone) }}</span>
            <span v-if="board.closesAt" class="quiet">, {{ t.shuts(dayAndTime(board.closesAt, board.zone)) }}</span>
            <span v-if="board.keepUntil" class="quiet">, {{ t.keptUntil(board.keepUntil) }}</span>
          </p>
          <p v-if="board.closedAt" class="closed">{{ t.closed(dayAndTime(board.closedAt)) }}</p>
        </div>
        <div class="actions">
          <RouterLink v-if="counts.toCheck + counts.claimed > 0" class="button primary" :to="{ name: 'review', params: { id: board.id } }">{{ counts.toCheck > 0 ? t.check(counts.toCheck) : t.lookAtClaimed(counts.claimed) }}</RouterLink>
          <button v-if="board.hasOpenLink" class="button" type="button" @click="copyOpenLink">{{ t.copyOpenLink }}</button>
          <button v-if="board.state === 'GATHERING'" class="button" type="button" :aria-expanded="adding" @click="adding = !adding">{{ t.askMore }}</button>
          <RoundMenu :board="board" :files="counts.files" @close="closing = true" @reopen="change('reopen')" />
        </div>
      </header>
      <p v-if="linkToCopy" class="failure">{{ t.copyFailed }} <span class="mono">{{ linkToCopy }}</span></p>
      <AddLateForm v-if="adding" :round-id="roundId" @done="adding = false" />

      <RoundRuler
        v-if="counts.asked > 0"
        :opened="board.openedAt"
        :deadline="board.deadline"
        :grace-end="board.graceEnd"
        :now="board.now"
        :closed="board.closedAt"
        :zone="board.zone"
        :asked="counts.asked"
        :finished="finished"
        :letters="ticks"
      />
      <RoundLetters :round-id="roundId" :ticks="ticks" :sent="sent" :zone="board.zone" />
      <BoardCounts :counts="counts" :overdue="lists.overdue" :hand-over="lists.handOver" @open="(list) => (filter = list)" />

      <div class="table-and-panel" :class="{ both: shown }">
        <div class="table-side">
          <template v-if="board.rows.length || rows.size">
            <BoardFilters v-model:filter="filter" v-model:search="search" v-model:group-by="groupBy" :counts="lists" :chosen="chosen.size" :shown="order.length">
              <ColumnChoice :board="board" :facts="facts" :hidden-items="columns.hiddenItems" @fact="toggleFact" @item="toggleItem" />
              <button class="button small help" type="button" :aria-label="text.board.keys" @click="helping = true">?</button>
            </BoardFilters>
            <BulkBar v-if="chosenRows.length > 0" :round-id="roundId" :rows="chosenRows" :all="lists.everybody" @clear="chosen.clear()" />
            <BoardTable
              ref="table"
              v-model:sort="sort"
              :board="board"
              :lines="lines"
              :rows="rows"
              :pulse="pulse"
              :shown="shown"
              :facts="facts"
              :hidden-items="columns.hiddenItems"
              :chosen="chosen"
              @show="show"
              @hold="held = $event"
              @choose="choose"
              @choose-all="chooseAll"
            />
          </template>
          <p v-else class="quiet">{{ t.noBaskets }}</p>
          <BoardLegend />
        </div>
        <BasketPanel v-if="shown" :key="shown" :basket-id="shown" :touched="touched" :letters="letters" :closed="noLongerMoving" @close="show(undefined)" />
      </div>

      <KeyHelp v-model="helping" :keys="text.board.keyList" />
      <ElDialog v-model="closing" :title="t.close" width="460" append-to-body>
        <p>{{ t.confirmClose }}</p>
        <template #footer>
          <button class="button" type="button" @click="closing = false">{{ t.cancel }}</button>
          <button class="button primary" type="button" @click="change('close')">{{ t.close }}</button>
        </template>
      </ElDialog>
    </template>
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.closed {
  margin-top: 6px;
  padding: 4px 12px;
  border-left: 4px solid var(--slate);
  background: var(--tint);
}
.help {
  min-width: 36px;
  min-height: 36px;
}
.table-and-panel {
  display: grid;
  gap: 20px;
  align-items: start;
}
.table-and-panel.both {
  grid-template-columns: minmax(0, 1fr) minmax(360px, 430px);
}
.table-side {
  min-width: 0;
}
</style>
