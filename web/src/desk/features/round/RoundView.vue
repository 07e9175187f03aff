<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, nextTick, reactive, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime, deadlineWords, zoneWords } from '../../../shared/time'
import RoundRuler from './RoundRuler.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { copy } from '../../copy'
import { say, sayProblem } from '../../say'
import { useKeys } from '../../use-keys'
import { may } from '../../use-session'
import AddLateForm from './AddLateForm.vue'
import BasketPanel from './BasketPanel.vue'
import BoardCounts from './BoardCounts.vue'
import BoardFilters from './BoardFilters.vue'
import BoardLegend from './BoardLegend.vue'
import BoardTable from './BoardTable.vue'
import { itemIds } from './board-sort'
import BulkBar from './BulkBar.vue'
import KeyHelp from './KeyHelp.vue'
import RoundHistory from './RoundHistory.vue'
import RoundLetters from './RoundLetters.vue'
import RoundMenu from './RoundMenu.vue'
import SharingDialog from '../../sharing/SharingDialog.vue'
import { useBoard } from './use-board'
import { useBoardRows } from './use-board-rows'
import { usePresence } from './use-presence'
import { useColumns } from './use-columns'
import { useShown } from './use-shown'
import { useTicks } from './use-ticks'
import ViewMenu from './ViewMenu.vue'

const t = text.round
const route = useRoute()
const router = useRouter()
const roundId = Number(route.params.id)
const chosen = reactive(new Set<number>())
const shown = computed(() => (route.query.basket ? Number(route.query.basket) : undefined))
const { filter, sort, groupBy, put } = useShown(roundId)
const rulerOpen = useLocalStorage('oak-ruler-open', false)
const tall = useLocalStorage('oak-tall-rows', false)
const store = useBoard(roundId)
const { board, problem, load, rows, tally, pulse, now } = store
const { ticks, sent } = useTicks(roundId)
const items = computed(() => itemIds(board.value?.items ?? []))
const { search, held, order, lines } = useBoardRows(store, { filter, sort, groupBy, items }, chosen)
const { facts, hiddenItems, toggleFact, toggleItem } = useColumns(put)
const counts = computed(() => (pulse.value >= 0 ? { ...tally.value.counts } : tally.value.counts))
const lists = computed(() => (pulse.value >= 0 ? { ...tally.value.lists } : tally.value.lists))
const finished = computed(() => (pulse.value >= 0 ? [...rows.values()].filter((row) => !row.removed && !row.walkIn && !row.waived && row.finishedAt).map((row) => row.finishedAt!) : []))
const ruler = computed(() => ({
  opened: board.value!.openedAt,
  deadline: board.value!.deadline,
  graceEnd: board.value!.graceEnd,
  now: now.value,
  closed: board.value!.closedAt,
  zone: board.value!.zone,
  asked: counts.value.asked,
  finished: finished.value,
  letters: ticks.value,
}))
const chosenRows = computed(() => (pulse.value >= 0 ? [...chosen].map((id) => rows.get(id)).filter((row) => row !== undefined) : []))
const noLongerMoving = computed(() => board.value?.state === 'CLOSED' || board.value?.state === 'ARCHIVED')
const others = usePresence(roundId, shown)
const history = ref(false)
const sharing = ref(false)
const closing = ref(false)
const adding = ref(false)
const helping = ref(false)
const linkToCopy = ref('')
const table = useTemplateRef('table')
let lastChosen = 0

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
    <LoadingPart v-if="!board && !problem" />
    <template v-if="board">
      <header>
        <div>
          <h1>{{ board.title }}</h1>
          <p>
            {{ t.deadline }}: <strong>{{ deadlineWords(board.deadline, board.zone, board.dateOnly) }}</strong> <span class="quiet">{{ zoneWords(board.zone) }}</span>
            <span v-if="board.closesAt" class="quiet">, {{ t.shuts(dayAndTime(board.closesAt, board.zone)) }}</span>
            <span v-if="board.keepUntil" class="quiet">, {{ t.keptUntil(board.keepUntil) }}</span>
          </p>
          <p v-if="others.length > 0" class="others" role="status"><span v-for="one in others" :key="one.account">{{ one.person ? text.team.alsoAt(one.name, one.person) : text.team.alsoHere(one.name) }}</span></p>
          <p v-if="board.closedAt" class="closed">{{ t.closed(dayAndTime(board.closedAt)) }}</p>
        </div>
        <div class="actions">
          <RouterLink v-if="counts.toCheck + counts.claimed > 0 && may('CHANGE')" class="button primary" :to="{ name: 'review', params: { id: board.id } }">{{ counts.toCheck > 0 ? t.check(counts.toCheck) : t.lookAtClaimed(counts.claimed) }}</RouterLink>
          <ElButton v-if="board.hasOpenLink && may('CHANGE')" @click="copyOpenLink">{{ t.copyOpenLink }}</ElButton>
          <ElButton v-if="board.state === 'GATHERING' && may('CHANGE')" :aria-expanded="adding" @click="adding = !adding">{{ t.askMore }}</ElButton>
          <RoundMenu :board="board" :files="counts.files" @close="closing = true" @reopen="change('reopen')" @history="history = true" @sharing="sharing = true" @links="linkToCopy = $event" />
        </div>
      </header>
      <p v-if="linkToCopy" class="failure">{{ t.copyFailed }} <span class="mono links">{{ linkToCopy }}</span></p>
      <AddLateForm v-if="adding" :round-id="roundId" @done="adding = false" />

      <div v-if="counts.asked > 0" class="line">
        <ElButton link size="small" :aria-expanded="rulerOpen" @click="rulerOpen = !rulerOpen"><span class="sign" aria-hidden="true">{{ rulerOpen ? '▾' : '▸' }}</span>{{ t.timeLine }}</ElButton>
        <RoundRuler v-if="!rulerOpen" folded v-bind="ruler" />
        <BoardCounts :counts="counts" @open="(list) => (filter = list)" />
        <RoundLetters v-if="!rulerOpen" folded :round-id="roundId" :ticks="ticks" :sent="sent" :zone="board.zone" />
      </div>
      <template v-if="counts.asked > 0 && rulerOpen">
        <RoundRuler v-bind="ruler" />
        <RoundLetters :round-id="roundId" :ticks="ticks" :sent="sent" :zone="board.zone" />
      </template>
      <BoardCounts v-else-if="counts.asked === 0" :counts="counts" @open="(list) => (filter = list)" />

      <div class="table-and-panel" :class="{ both: shown }">
        <div class="table-side">
          <template v-if="board.rows.length || rows.size">
            <BoardFilters v-model:filter="filter" v-model:search="search" :counts="lists" :chosen="chosen.size" :shown="order.length">
              <ViewMenu v-model:group-by="groupBy" v-model:tall="tall" :board="board" :facts="facts" :hidden-items="hiddenItems" @fact="toggleFact" @item="toggleItem" />
              <ElButton size="small" class="help" :aria-label="text.board.keys" @click="helping = true">?</ElButton>
            </BoardFilters>
            <BulkBar v-if="chosenRows.length > 0 && may('CHANGE')" :round-id="roundId" :rows="chosenRows" :all="lists.everybody" @clear="chosen.clear()" />
            <BoardTable
              ref="table"
              v-model:sort="sort"
              :board="board"
              :lines="lines"
              :rows="rows"
              :pulse="pulse"
              :shown="shown"
              :facts="facts"
              :hidden-items="hiddenItems"
              :tall="tall"
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
        <BasketPanel v-if="shown" :key="shown" :basket-id="shown" :closed="noLongerMoving" @close="show(undefined)" />
      </div>

      <RoundHistory v-if="history" v-model="history" :round-id="roundId" :zone="board.zone" />
      <SharingDialog v-if="sharing" :id="roundId" of="round" @close="sharing = false" />
      <KeyHelp v-model="helping" :keys="text.board.keyList" />
      <ElDialog v-model="closing" :title="t.close" width="460" append-to-body>
        <p>{{ t.confirmClose }}</p>
        <template #footer>
          <ElButton @click="closing = false">{{ t.cancel }}</ElButton>
          <ElButton type="primary" @click="change('close')">{{ t.close }}</ElButton>
        </template>
      </ElDialog>
    </template>
  </div>
</template>

<style scoped>
.others {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  color: var(--oak);
}
.links {
  display: block;
  white-space: pre-wrap;
}
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
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: center;
  min-height: 28px;
  margin-bottom: 8px;
}
.sign {
  display: inline-block;
  margin-right: 6px;
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
