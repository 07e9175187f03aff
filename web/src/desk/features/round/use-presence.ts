import { useIntervalFn } from '@vueuse/core'
import { onScopeDispose, ref, watch, type Ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { useLive } from '../../live'

const TELL_EVERY_MILLISECONDS = 20_000

/** Tells the server that this round is open here, and whose basket, and learns who else looks at it. */
export function usePresence(round: number, basket: Readonly<Ref<number | undefined>>): Ref<Schemas['AlsoHere'][]> {
  const others = ref<Schemas['AlsoHere'][]>([])

  async function tell() {
    // Whoever else is there matters least of all; while the server cannot be asked, nobody is shown.
    others.value = await desk.hereNow(round, basket.value ?? null).catch(() => [])
  }

  watch(basket, tell, { immediate: true })
  useIntervalFn(tell, TELL_EVERY_MILLISECONDS)
  useLive((event) => {
    if (event.type === 'presence' && event.roundId === round) void tell()
  }, () => void tell())
  onScopeDispose(() => void desk.goneNow(round).catch(() => undefined))
  return others
}
