import { useIntervalFn } from '@vueuse/core'
import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import { desk, type BoardView, type Row } from '../../../api/desk'
import { useLive } from '../../live'
import { useRead } from '../../queries'
import { Tally } from './use-tally'

const GATHER_MILLISECONDS = 150
/** From this many changed baskets at once on, the whole board is loaded again. */
const MANY = 40
/** How long something is overdue is told to the minute on the first day. */
const MINUTE_MILLISECONDS = 60_000

/** The board of a round, kept up to date: one arrival costs one row, however large the round, and a deadline that passes costs the rows it concerns. */
export function useBoard(roundId: number) {
  const rows = new Map<number, Row>()
  const tally = shallowRef(new Tally([]))
  /** Moves on with every change of a row. */
  const pulse = ref(0)
  const listeners: ((row: Row | undefined) => void)[] = []
  const { value: board, problem, load } = useRead<BoardView>(['board', roundId], () => desk.board(roundId), {
    fresh: true,
    on: (event) => !['letter', 'moment', 'link'].includes(event.type) && (event.roundId === 0 || (event.roundId === roundId && event.basketId === null)),
  })
  /** The server's time up to which what time changes is shown. */
  const now = ref('')
  const waiting = new Set<number>()
  let timer = 0

  watch(board, (all) => {
    if (!all) return
    rows.clear()
    for (const row of all.rows) rows.set(row.id, row)
    tally.value = new Tally(rows.values())
    now.value = all.now
    tell(undefined)
  }, { immediate: true })

  function tell(row: Row | undefined) {
    pulse.value++
    listeners.forEach((listener) => listener(row))
  }

  function take(row: Row) {
    tally.value.replace(rows.get(row.id), row)
    rows.set(row.id, row)
    tell(row)
  }

  useLive(
    (event) => {
      if (event.roundId !== roundId) return
      if (event.type === 'moment') void timeWentOn()
      else if (event.type !== 'letter' && event.type !== 'link' && event.basketId !== null) {
        waiting.add(event.basketId)
        if (!timer) timer = window.setTimeout(refresh, GATHER_MILLISECONDS)
      }
    },
    () => {},
  )
  useIntervalFn(() => void timeWentOn(), MINUTE_MILLISECONDS)
  onScopeDispose(() => clearTimeout(timer))

  async function refresh() {
    timer = 0
    const ids = [...waiting]
    waiting.clear()
    if (ids.length > MANY) return load()
    try {
      ;(await Promise.all(ids.map((id) => desk.row(id)))).forEach(take)
    } catch {
      await load()
    }
  }

  /** Takes over what only the clock changed: who became overdue, and for how long. */
  async function timeWentOn() {
    if (!board.value) return
    try {
      const moved = await desk.moved(roundId, now.value)
      now.value = moved.now
      moved.rows.forEach(take)
    } catch {
      // Whoever lost the connection or the session is told by the top bar, and reads everything again afterwards.
    }
  }

  /** Calls back with each row that changed, or with nothing when all may have. */
  function onChange(listener: (row: Row | undefined) => void) {
    listeners.push(listener)
  }

  return { board, problem, load, rows, tally, pulse, now, onChange }
}
