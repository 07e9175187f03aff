import { computed, onScopeDispose, shallowRef, watch, type Ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'

const GATHER_MILLISECONDS = 1_500

/** The letters of a round that went and will go, read anew a little after something changed. */
export function useTicks(roundId: number, pulse: Ref<number>) {
  const ticks = shallowRef<Schemas['LetterTick'][]>([])
  let timer = 0

  async function load() {
    timer = 0
    ticks.value = await desk.ticks(roundId).catch(() => ticks.value)
  }

  watch(pulse, () => {
    if (!timer) timer = window.setTimeout(load, ticks.value.length === 0 ? 0 : GATHER_MILLISECONDS)
  })
  onScopeDispose(() => clearTimeout(timer))

  const sent = computed(() => ticks.value.filter((tick) => !tick.planned).reduce((sum, tick) => sum + tick.letters, 0))
  return { ticks, sent }
}
