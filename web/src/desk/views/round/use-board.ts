import { computed, onScopeDispose } from 'vue'
import { desk, type BoardView, type Row } from '../../../api/desk'
import { useLive } from '../../use-live'
import { useLoaded } from '../../use-loaded'

const PROGRESS = ['NOT_ASKED', 'ASKED', 'OPENED', 'PART', 'COMPLETE', 'CHECKED'] as const
const GATHER_MILLISECONDS = 150

/** The board of a round, kept up to date: one arrival costs one row. */
export function useBoard(roundId: number, changed: (basketId: number) => void) {
  const { value: board, problem, load } = useLoaded(() => desk.board(roundId))
  const waiting = new Set<number>()
  let timer = 0

  useLive(
    (event) => {
      if (event.roundId !== roundId) return
      if (event.basketId === null) void load()
      else {
        waiting.add(event.basketId)
        if (!timer) timer = window.setTimeout(refresh, GATHER_MILLISECONDS)
      }
    },
    () => void load(),
  )
  onScopeDispose(() => clearTimeout(timer))

  async function refresh() {
    timer = 0
    const ids = [...waiting]
    waiting.clear()
    try {
      const rows = await Promise.all(ids.map((id) => desk.row(id)))
      if (board.value) {
        const kept = board.value.rows.map((row) => rows.find((one) => one.id === row.id) ?? row)
        const fresh = rows.filter((row) => !board.value!.rows.some((old) => old.id === row.id))
        board.value = { ...board.value, rows: [...kept, ...fresh], counts: countsOf([...kept, ...fresh], board.value) }
      }
    } catch {
      await load()
    }
    ids.forEach(changed)
  }

  const noLongerMoving = computed(() => board.value?.state === 'CLOSED' || board.value?.state === 'ARCHIVED')
  return { board, problem, load, noLongerMoving }
}

/** The totals that the server would give for these rows; see RoundCounts in the core. */
export function countsOf(rows: Row[], board: BoardView): BoardView['counts'] {
  const asked = rows.filter((row) => !row.walkIn && !row.waived)
  const complete = asked.filter((row) => row.progress === 'COMPLETE' || row.progress === 'CHECKED').length
  const tally = (keys: readonly string[], of: (row: Row) => string) => Object.fromEntries(keys.map((key) => [key, asked.filter((row) => of(row) === key).length]))
  return {
    ...board.counts,
    asked: asked.length,
    complete,
    percent: asked.length ? Math.floor((100 * complete) / asked.length) : 0,
    waived: rows.filter((row) => !row.walkIn && row.waived).length,
    walkIns: rows.filter((row) => row.walkIn).length,
    files: rows.reduce((sum, row) => sum + row.files, 0),
    senders: rows.filter((row) => row.files > 0).length,
    toCheck: rows.reduce((sum, row) => sum + row.toCheck, 0),
    byProgress: tally(PROGRESS, (row) => row.progress),
    byTimeliness: tally(Object.keys(board.counts.byTimeliness), (row) => row.timeliness),
  }
}
