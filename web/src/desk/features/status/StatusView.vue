<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { desk, type Row } from '../../../api/desk'
import { text } from '../../../text/desk'
import { tileOf } from '../../../shared/tile'
import { dayAndTime, deadlineWords, zoneWords } from '../../../shared/time'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { FILTERS } from '../round/board-filters'
import { orderOf, PRESSING_FIRST } from '../round/board-sort'
import { standingWords } from '../round/standing-words'

/** A sheet of paper: who still owes what, who is done. */
const t = text.status
const id = Number(useRoute().params.id)
const { value: board, problem, load } = useRead(['status', id], () => desk.board(id), { fresh: true })

const lists = computed(() => {
  const rows = [...(board.value?.rows ?? [])].sort(orderOf(PRESSING_FIRST, []))
  return [
    { title: t.owing, rows: rows.filter(FILTERS.owes) },
    { title: t.finished, rows: rows.filter(FILTERS.complete) },
    { title: t.excused, rows: rows.filter(FILTERS.waived) },
  ].filter((list) => list.rows.length > 0 || list.title === t.owing)
})

function owes(row: Row): string {
  return board.value!.items.filter((item, n) => item.required && ['WANTED', 'PART', 'RETURNED'].includes(tileOf(row.tiles[n] ?? 0).standing)).map((item) => item.title).join(', ')
}

function words(row: Row): string {
  const { main, time, detail } = standingWords(row)
  return [main, time && `${time} ${detail}`.trim()].filter(Boolean).join(', ')
}

const print = () => window.print()
</script>

<template>
  <div class="page sheet">
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!board && !problem" />
    <template v-if="board">
      <header>
        <div>
          <h1>{{ board.title }}</h1>
          <p>{{ text.round.deadline }}: {{ deadlineWords(board.deadline, board.zone, board.dateOnly) }} {{ zoneWords(board.zone) }}</p>
          <p>{{ text.round.counts.complete(board.counts.complete, board.counts.asked, board.counts.percent) }}, {{ t.as(dayAndTime(board.now, board.zone)) }}</p>
        </div>
        <div class="actions">
          <RouterLink class="button" :to="{ name: 'round', params: { id } }">{{ text.review.back }}</RouterLink>
          <ElButton type="primary" @click="print">{{ t.print }}</ElButton>
        </div>
      </header>
      <section v-for="list in lists" :key="list.title">
        <h2>{{ list.title }} ({{ list.rows.length }})</h2>
        <p v-if="list.rows.length === 0">{{ t.nothing }}</p>
        <table v-else class="plain">
          <thead>
            <tr>
              <th scope="col">{{ text.round.person }}</th>
              <th scope="col">{{ text.round.standing }}</th>
              <th scope="col">{{ t.owes }}</th>
              <th scope="col">{{ text.round.lastIn }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in list.rows" :key="row.id">
              <td>{{ row.name }}<span v-if="row.organisation" class="quiet">, {{ row.organisation }}</span></td>
              <td>{{ words(row) }}</td>
              <td>{{ owes(row) }}</td>
              <td>{{ row.lastArrival ? dayAndTime(row.lastArrival, board.zone) : '' }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  gap: 8px;
}
section {
  margin-bottom: 20px;
}
h2 {
  margin-bottom: 6px;
  font-size: 18px;
}
</style>
