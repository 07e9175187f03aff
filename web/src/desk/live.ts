import { useEventListener } from '@vueuse/core'
import { onScopeDispose, ref } from 'vue'
import { desk } from '../api/desk'
import { onRefusal } from '../api/client'
import { readAgain } from './queries'
import { loadSession, session, sessionEnded } from './use-session'

const TYPES = ['arrival', 'basket', 'round', 'contact', 'letter', 'link', 'held', 'filing', 'parcel', 'taken', 'team', 'presence', 'moment'] as const

/** Something that changed: what it was, in which round (0 for contacts and the team), and whose basket; none when the whole round changed. */
export interface LiveEvent {
  type: (typeof TYPES)[number]
  roundId: number
  basketId: number | null
}
/** Events that come close together are answered by one reading. */
const GATHER_MILLISECONDS = 150
/** The server says that it lives every 20 seconds; silence longer than this is a connection that is dead without having been closed. */
const SILENCE_MILLISECONDS = 45_000
const TRY_AGAIN_MILLISECONDS = 2_000

/** Whether the desk hears what changes. While it does not, what it shows may be old, and the top bar says so. */
export const connected = ref(true)

interface Listener {
  on: (event: LiveEvent) => void
  missed: () => void
}

const listeners = new Set<Listener>()
let gathered: LiveEvent[] = []
let gathering = 0
let source: EventSource | undefined
let silence = 0
let again = 0
let lost = false

/** Reads again what the events concern; each query says itself what it wants to hear of. */
function invalidate(events: LiveEvent[]) {
  void readAgain({ predicate: ({ meta }) => events.some((event) => meta?.on?.(event)) })
}

function hear(event: LiveEvent) {
  // What one may do oneself may have changed.
  if (event.type === 'team') void loadSession().catch(() => {})
  listeners.forEach((listener) => listener.on(event))
  // Who looks at a round changes nothing that was read.
  if (event.type === 'presence') return
  gathered.push(event)
  if (!gathering) {
    gathering = window.setTimeout(() => {
      const events = gathered
      gathered = []
      gathering = 0
      invalidate(events)
    }, GATHER_MILLISECONDS)
  }
}

/** After a time without a connection anything may have happened: all that is shown is read again. */
function backAgain() {
  if (!lost) return
  lost = false
  listeners.forEach((listener) => listener.missed())
  void readAgain({ predicate: ({ meta }) => !!meta?.on })
}

function alive() {
  connected.value = true
  clearTimeout(silence)
  silence = window.setTimeout(reconnect, SILENCE_MILLISECONDS)
}

function gone() {
  lost = true
  connected.value = false
}

function reconnect() {
  gone()
  stopLive()
  again = window.setTimeout(() => void look(), TRY_AGAIN_MILLISECONDS)
}

/** Why the stream does not open: nobody is signed in any more, or the server is away. */
async function look() {
  try {
    if (!(await desk.session()).signedIn) return sessionLost()
    goLive()
  } catch {
    reconnect()
  }
}

/** Somebody signed in over the open page. */
export function backIn() {
  sessionEnded.value = false
  goLive()
}

function sessionLost() {
  if (!session.value?.signedIn) return
  lost = true
  sessionEnded.value = true
  stopLive()
}

/** Opens the one stream of events of this window. */
export function goLive(): void {
  stopLive()
  const stream = new EventSource('/api/live')
  source = stream
  stream.addEventListener('hello', () => {
    alive()
    backAgain()
  })
  stream.addEventListener('alive', alive)
  for (const type of TYPES) {
    stream.addEventListener(type, (message) => {
      alive()
      hear(JSON.parse((message as MessageEvent<string>).data))
    })
  }
  stream.addEventListener('error', () => {
    if (source !== stream) return
    gone()
    if (stream.readyState === EventSource.CLOSED) reconnect()
  })
}

export function stopLive(): void {
  source?.close()
  source = undefined
  clearTimeout(silence)
  clearTimeout(again)
}

/** Minds the connection for as long as the desk is open: the browser's own word that the network is gone, and calls that get no answer. */
export function useConnection(): void {
  useEventListener(window, 'offline', gone)
  useEventListener(window, 'online', () => session.value?.signedIn && !sessionEnded.value && goLive())
  onRefusal((problem) => {
    if (problem.code === 'sign-in-needed') sessionLost()
    if (problem.status === 0 && source && connected.value) reconnect()
  })
}

/** Calls back on every event of the server while the component lives, and once after each time the connection had been lost. */
export function useLive(on: (event: LiveEvent) => void, missed: () => void): void {
  const listener = { on, missed }
  listeners.add(listener)
  onScopeDispose(() => listeners.delete(listener))
}
