import { onScopeDispose, ref, shallowRef } from 'vue'
import { desk, type BoardView, type Row } from '../../../api/desk'
import { useLive } from '../../use-live'
import { useLoaded } from '../../use-loaded'
import { Tally } from './use-tally'

const GATHER_MILLISECONDS = 150
/** From this many changed baskets at once on, the whole board is loaded again. */
const MANY = 40

/** The board of a round, kept up to date: one arrival costs one row, however large the round. */
export function useBoard(roundId: number) {
  const rows = new Map<number, Row>()
  const tally = shallowRef(new Tally([]))
  /** Moves on with every change of a row. */
  const pulse = ref(0)
  const listeners: ((row: Row | undefined) => void)[] = []
  const { value: board, problem, load: read } = useLoaded<BoardView>(() => desk.board(roundId))
  /** Moves on when a letter of the round was made, went or was stopped. */
  const letters = ref(0)
  const waiting = new Set<number>()
  let timer = 0

  async function load() {
    await read()
    if (!board.value) return
    rows.clear()
    for (const row of board.value.rows) rows.set(row.id, row)
    tally.value = new Tally(rows.values())
    tell(undefined)
  }

  function tell(row: Row | undefined) {
    pulse.value++
    listeners.forEach((listener) => listener(row))
  }

  useLive(
    (event) => {
      if (event.type === 'letter') {
        if (event.roundId === roundId) letters.value++
      } else if (event.roundId === 0 || (event.roundId === roundId && event.basketId === null)) void load()
      else if (event.roundId === roundId) {
        waiting.add(event.basketId!)
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
    if (ids.length > MANY) return load()
    try {
      for (const row of await Promise.all(ids.map((id) => desk.row(id)))) {
        tally.value.replace(rows.get(row.id), row)
        rows.set(row.id, row)
        tell(row)
      }
    } catch {
      await load()
    }
  }

  /** Calls back with each row that changed, or with nothing when all may have. */
  function onChange(listener: (row: Row | undefined) => void) {
    listeners.push(listener)
  }

  return { board, problem, load, rows, tally, pulse, letters, onChange }
}
