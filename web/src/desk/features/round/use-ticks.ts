import { computed, onScopeDispose, shallowRef, watch, type Ref } from 'vue'
import { desk, type BoardView, type Schemas } from '../../../api/desk'

const GATHER_MILLISECONDS = 1_500
/** What is planned shrinks as papers come in; it is counted anew by the clock, so that an arrival costs nothing here. */
const ANEW_MILLISECONDS = 5 * 60_000

/** The letters of a round that went and will go. */
export function useTicks(roundId: number, board: Ref<BoardView | undefined>, letters: Ref<number>) {
  const ticks = shallowRef<Schemas['LetterTick'][]>([])
  let timer = 0

  async function load() {
    clearTimeout(timer)
    timer = 0
    ticks.value = await desk.ticks(roundId).catch(() => ticks.value)
  }

  watch(board, load)
  watch(letters, () => {
    if (!timer) timer = window.setTimeout(load, GATHER_MILLISECONDS)
  })
  const anew = window.setInterval(load, ANEW_MILLISECONDS)
  onScopeDispose(() => {
    clearTimeout(timer)
    clearInterval(anew)
  })

  const sent = computed(() => ticks.value.filter((tick) => !tick.planned).reduce((sum, tick) => sum + tick.letters, 0))
  return { ticks, sent }
}
