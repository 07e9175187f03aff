import { useIntervalFn } from '@vueuse/core'
import { computed } from 'vue'
import { desk } from '../../../api/desk'
import { useRead } from '../../queries'

/** What is planned shrinks as papers come in; it is counted anew by the clock, so that an arrival costs nothing here. */
const ANEW_MILLISECONDS = 5 * 60_000

/** The letters of a round that went and will go. */
export function useTicks(roundId: number) {
  const { value, load } = useRead(['ticks', roundId], () => desk.ticks(roundId), {
    on: (event) => event.roundId === roundId && (event.type === 'letter' || event.basketId === null),
  })
  useIntervalFn(() => void load(), ANEW_MILLISECONDS)
  const ticks = computed(() => value.value ?? [])
  const sent = computed(() => ticks.value.filter((tick) => !tick.planned).reduce((sum, tick) => sum + tick.letters, 0))
  return { ticks, sent }
}
