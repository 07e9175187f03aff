import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { BoardView, Row } from '../../../api/desk'

export type Filter = 'owes' | 'overdue' | 'toCheck' | 'neverOpened'
export type Sort = 'pressing' | 'name' | 'files' | 'last'

/** What each chip lets through. Walk-ins were not asked, so they owe nothing. */
export const FILTERS: Record<Filter, (row: Row) => boolean> = {
  owes: (row) => !row.walkIn && !row.waived && !finished(row),
  overdue: (row) => !row.walkIn && !row.waived && row.timeliness === 'OVERDUE',
  toCheck: (row) => row.toCheck > 0,
  neverOpened: (row) => !row.walkIn && !row.waived && (row.progress === 'NOT_ASKED' || row.progress === 'ASKED'),
}

const ORDERS: Record<Sort, (a: Row, b: Row) => number> = {
  pressing: (a, b) => pressure(b) - pressure(a) || b.pastDeadlineMinutes - a.pastDeadlineMinutes || a.deadline.localeCompare(b.deadline) || byName(a, b),
  name: byName,
  files: (a, b) => b.files - a.files || byName(a, b),
  last: (a, b) => (b.lastArrival ?? '').localeCompare(a.lastArrival ?? '') || byName(a, b),
}

function finished(row: Row): boolean {
  return row.progress === 'COMPLETE' || row.progress === 'CHECKED'
}

/** How much a basket presses: overdue first, then what is about to be, then what waits for a look, then the rest. */
function pressure(row: Row): number {
  if (row.waived) return 0
  if (row.walkIn) return row.toCheck > 0 ? 3 : 1
  if (!finished(row)) return { OVERDUE: 7, IN_GRACE: 6, DUE_SOON: 5, AHEAD: 4, ON_TIME: 4, LATE: 4 }[row.timeliness]
  return row.toCheck > 0 ? 3 : 2
}

function byName(a: Row, b: Row): number {
  return a.name.localeCompare(b.name)
}

/**
 * The rows as shown: filtered, searched and sorted. While the pointer is in the table, rows keep their places whatever arrives;
 * they are put in order again when it leaves.
 */
export function useBoardRows(board: Ref<BoardView | undefined>) {
  const filter = ref<Filter>()
  const sort = ref<Sort>('pressing')
  const search = ref('')
  const held = ref(false)
  const order = shallowRef<number[]>([])

  const counts = computed(() => {
    const rows = board.value?.rows ?? []
    return Object.fromEntries(Object.entries(FILTERS).map(([name, passes]) => [name, rows.filter(passes).length])) as Record<Filter, number>
  })

  function arrange() {
    const words = search.value.trim().toLocaleLowerCase()
    order.value = (board.value?.rows ?? [])
      .filter((row) => !filter.value || FILTERS[filter.value](row))
      .filter((row) => !words || `${row.name} ${row.email} ${row.organisation} ${row.group}`.toLocaleLowerCase().includes(words))
      .sort(ORDERS[sort.value])
      .map((row) => row.id)
  }

  watch([filter, sort, search], arrange)
  watch(held, (now) => !now && arrange())
  watch(board, (now, before) => {
    if (!held.value || !before || now?.rows.length !== before.rows.length) arrange()
  })

  const rows = computed(() => {
    const byId = new Map(board.value?.rows.map((row) => [row.id, row]))
    return order.value.map((id) => byId.get(id)).filter((row) => row !== undefined)
  })

  return { filter, sort, search, held, counts, rows }
}
