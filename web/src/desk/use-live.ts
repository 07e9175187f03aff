import { onScopeDispose } from 'vue'

export interface LiveEvent {
  type: 'arrival' | 'basket' | 'round' | 'contact' | 'letter'
  roundId: number
  basketId: number | null
}

/**
 * Calls back on every event of the server while the component lives, and once after each time the connection had been lost, since
 * events may have been missed then.
 */
export function useLive(on: (event: LiveEvent) => void, missed: () => void): void {
  const source = new EventSource('/api/live')
  let opened = false
  source.addEventListener('hello', () => {
    if (opened) missed()
    opened = true
  })
  for (const type of ['arrival', 'basket', 'round', 'contact', 'letter']) {
    source.addEventListener(type, (message) => on(JSON.parse((message as MessageEvent<string>).data)))
  }
  onScopeDispose(() => source.close())
}
