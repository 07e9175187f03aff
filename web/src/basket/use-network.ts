import { onScopeDispose, ref } from 'vue'
import type { ApiProblem } from '../api/problem'

const FIRST_PAUSE_MILLISECONDS = 500
const LONGEST_PAUSE_MILLISECONDS = 30_000

/** Waits a network out that is away, with growing pauses, and goes on at once when the browser says that it is back. */
export function useNetwork(wanted: () => boolean) {
  const online = ref(navigator.onLine)
  /** Whether something waits for the network just now. */
  const waiting = ref(false)
  let pause = FIRST_PAUSE_MILLISECONDS
  let goOn = new Set<() => void>()

  function wake() {
    const all = goOn
    goOn = new Set()
    all.forEach((one) => one())
  }

  const cameBack = () => {
    online.value = true
    pause = FIRST_PAUSE_MILLISECONDS
    wake()
  }
  const wentAway = () => (online.value = false)
  addEventListener('online', cameBack)
  addEventListener('offline', wentAway)
  onScopeDispose(() => {
    removeEventListener('online', cameBack)
    removeEventListener('offline', wentAway)
  })

  /** Returns after a pause, when the network is back, or when nobody wants it any more. */
  async function wait() {
    waiting.value = true
    await new Promise<void>((resolve) => {
      goOn.add(resolve)
      setTimeout(resolve, pause)
    })
    pause = Math.min(pause * 2, LONGEST_PAUSE_MILLISECONDS)
  }

  /** Something came through. */
  function works() {
    waiting.value = false
    pause = FIRST_PAUSE_MILLISECONDS
  }

  function stop() {
    waiting.value = false
    wake()
  }

  /** Does something that needs the network, as often as it takes. */
  async function through<T>(work: () => Promise<T>): Promise<T> {
    for (;;) {
      try {
        const result = await work()
        works()
        return result
      } catch (error) {
        const status = (error as Partial<ApiProblem>).status
        // No status: a part of the page that did not load.
        if ((status !== undefined && status !== 0) || !wanted()) throw error
        await wait()
      }
    }
  }

  return { online, waiting, wait, works, stop, through }
}
