<script setup lang="ts">
import { ElDialog } from 'element-plus/es/components/dialog/index.mjs'
import 'element-plus/theme-chalk/el-dialog.css'
import 'element-plus/theme-chalk/el-overlay.css'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime, deadlineWords, zoneWords } from '../../../ui/time'
import RoundRuler from '../../../ui/RoundRuler.vue'
import FailureNote from '../../FailureNote.vue'
import { copy } from '../../copy'
import { say, sayProblem } from '../../say'
import BasketPanel from './BasketPanel.vue'
import BoardFilters from './BoardFilters.vue'
import BoardLegend from './BoardLegend.vue'
import BoardTable from './BoardTable.vue'
import { useBoard } from './use-board'
import { useBoardRows } from './use-board-rows'

const t = text.round
const route = useRoute()
const router = useRouter()
const roundId = Number(route.params.id)
const touched = ref(0)
const shown = computed(() => (route.query.basket ? Number(route.query.basket) : undefined))
const { board, problem, load, noLongerMoving } = useBoard(roundId, (basket) => {
  if (basket === shown.value) touched.value++
})
const { filter, sort, search, held, counts, rows } = useBoardRows(board)
const finished = computed(() => board.value?.rows.filter((row) => !row.walkIn && !row.waived && row.finishedAt).map((row) => row.finishedAt!) ?? [])
const asking = ref(false)
const linkToCopy = ref('')

onMounted(load)
watch(() => board.value?.title, (title) => title && (document.title = `${title} – ${text.product}`))

async function show(basket: number | undefined) {
  const before = shown.value
  await router.replace({ query: basket ? { basket } : {} })
  await nextTick()
  if (!basket && before) document.getElementById(`person-${before}`)?.focus({ preventScroll: true })
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
  asking.value = false
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
          </p>
          <p v-if="board.closedAt" class="closed">{{ t.closed(dayAndTime(board.closedAt)) }}</p>
        </div>
        <div class="actions">
          <button v-if="board.hasOpenLink" class="button" type="button" @click="copyOpenLink">{{ t.copyOpenLink }}</button>
          <a class="button" :href="`/rehearsal/${board.id}`" target="_blank" rel="noopener">{{ t.rehearse }}</a>
          <a v-if="board.counts.files > 0" class="button" :href="`/api/files.zip?round=${board.id}`" download>{{ t.takeAll }}</a>
          <button v-if="board.state === 'GATHERING'" class="button" type="button" @click="asking = true">{{ t.close }}</button>
          <button v-if="board.state === 'CLOSED'" class="button primary" type="button" @click="change('reopen')">{{ t.reopen }}</button>
        </div>
      </header>
      <p v-if="linkToCopy" class="failure">{{ t.copyFailed }} <span class="mono">{{ linkToCopy }}</span></p>

      <RoundRuler
        v-if="board.counts.asked > 0"
        :opened="board.openedAt"
        :deadline="board.deadline"
        :grace-end="board.graceEnd"
        :now="board.now"
        :closed="board.closedAt"
        :zone="board.zone"
        :asked="board.counts.asked"
        :finished="finished"
      />
      <p class="counts" aria-live="polite">
        <strong>{{ t.counts.complete(board.counts.complete, board.counts.asked, board.counts.percent) }}</strong>
        <span v-if="board.counts.byTimeliness.OVERDUE" class="rowan">{{ t.counts.overdue(board.counts.byTimeliness.OVERDUE) }}</span>
        <span v-if="board.counts.toCheck">{{ t.counts.toCheck(board.counts.toCheck) }}</span>
        <span>{{ t.counts.files(board.counts.files, board.counts.senders) }}</span>
        <span v-if="board.counts.waived">{{ t.counts.waived(board.counts.waived) }}</span>
        <span v-if="board.counts.walkIns">{{ t.counts.walkIns(board.counts.walkIns) }}</span>
      </p>

      <div class="table-and-panel" :class="{ both: shown }">
        <div class="table-side">
          <template v-if="board.rows.length">
            <BoardFilters v-model:filter="filter" v-model:search="search" :counts="counts" :total="board.rows.length" :shown="rows.length" />
            <BoardTable v-model:sort="sort" :board="board" :rows="rows" :shown="shown" @show="show" @hold="held = $event" />
          </template>
          <p v-else class="quiet">{{ t.noBaskets }}</p>
          <BoardLegend />
        </div>
        <BasketPanel v-if="shown" :key="shown" :basket-id="shown" :touched="touched" :closed="noLongerMoving" @close="show(undefined)" />
      </div>

      <ElDialog v-model="asking" :title="t.close" width="460" append-to-body>
        <p>{{ t.confirmClose }}</p>
        <template #footer>
          <button class="button" type="button" @click="asking = false">{{ t.cancel }}</button>
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
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  margin-bottom: 12px;
}
.rowan {
  color: var(--rowan);
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
