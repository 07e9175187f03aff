import { computed, onScopeDispose, ref, type Ref } from 'vue'
import { light } from '../api/light'
import type { ApiProblem } from '../api/problem'
import type { components } from '../api/schema'
import type { ChosenFile } from './chosen-file'
import { keptSending } from './kept-sending'
import type { Page } from './use-page'
import { useChosen } from './use-chosen'
import { useNetwork } from './use-network'

export type Receipt = components['schemas']['Receipt']

/** Files above this size are worth a word before the page is left. */
const LARGE_BYTES = 8 * 1024 * 1024

/** Sending the files chosen, and the receipt. Whatever goes wrong, what was chosen stays chosen and what arrived stays arrived. */
export function useSending(token: string, headers: Ref<Record<string, string>>, rehearsal: boolean, page: Ref<Page | undefined>) {
  const list = useChosen(token, !rehearsal, () => page.value?.until)
  const { chosen, notices, bytes } = list
  const phase = ref<'choosing' | 'sending' | 'paused' | 'done'>('choosing')
  const receipt = ref<Receipt>()
  /** What could not be taken of archives, in the server's words. */
  const leftOut = ref<string[]>([])
  const rate = ref(0)
  const kept = keptSending(token)
  const before = rehearsal ? undefined : kept.find()
  const note = ref(before?.note ?? '')
  const network = useNetwork(() => phase.value === 'sending')
  const stops = new Map<string, () => void>()
  /** Counts the sendings: one that was paused and begun again does not end what the next one does. */
  let turn = 0
  let submission = before?.submission ?? ''
  let declared = { name: before?.name ?? '', email: before?.email ?? '' }

  const sentBytes = computed(() => chosen.reduce((sum, one) => sum + one.sent, 0))
  const there = computed(() => chosen.filter((one) => one.state === 'there').length)
  const broken = computed(() => chosen.some((one) => one.problem))
  const begun = computed(() => there.value > 0 || chosen.some((one) => one.state === 'failed'))
  const secondsLeft = computed(() => (rate.value > 0 ? Math.ceil((bytes.value - sentBytes.value) / rate.value) : 0))

  /** Remembers what was typed and how far the sending is. */
  function remember(who = declared, underWay = phase.value === 'sending') {
    if (!rehearsal && (submission || who.name || who.email || note.value)) kept.keep({ submission, ...who, note: note.value, underWay })
  }

  /** Sends everything that is not there yet. Throws a problem that concerns the sending as a whole. */
  async function send(who: { name: string; email: string } | undefined) {
    phase.value = 'sending'
    const mine = ++turn
    const over = () => mine !== turn || phase.value !== 'sending'
    if (rehearsal) {
      const { rehearse } = await network.through(() => import('./rehearse'))
      const rehearsed = await rehearse(chosen, who)
      receipt.value = rehearsed
      phase.value = rehearsed ? 'done' : 'choosing'
      return
    }
    try {
      await network.through(() => beginOrCorrect(who ?? { name: '', email: '' }))
    } catch (error) {
      phase.value = 'choosing'
      throw error
    }
    remember(who)
    for (const number of Object.keys(notices)) delete notices[Number(number)]
    for (const one of chosen) {
      if (one.state !== 'there' && one.state !== 'pick') Object.assign(one, { state: 'waiting', problem: '' })
    }
    const loaded = await network.through(() => import('./send-files')).catch((error) => {
      if (!over()) throw error
    })
    if (!loaded || over()) return
    await loaded.sendFiles({ chosen, phase, headers, network, rate, leftOut, stops, submission: () => submission, lost: () => (submission = ''), remember: list.remember, fingerprint: kept.fingerprint })
    if (over()) return
    if (chosen.length > 0 && chosen.every((one) => one.state === 'there')) await network.through(finish)
    else {
      phase.value = 'choosing'
      remember(who)
    }
  }

  /** Begins the sending, or goes on with it; who the sender says they are is what stands on the page now, also after a refusal. */
  async function beginOrCorrect(who: { name: string; email: string }) {
    if (submission && (!who.email || (who.name === declared.name && who.email === declared.email))) return
    if (submission) {
      try {
        await light('put', '/api/basket/submissions', { body: who, headers: { ...headers.value, 'Oak-Submission': submission } })
      } catch (error) {
        const { code } = error as ApiProblem
        if (code !== 'no-submission' && code !== 'submission-finished') throw error
        submission = ''
      }
    }
    if (!submission) submission = (await light('post', '/api/basket/submissions', { body: who, headers: headers.value })).submission
    declared = { ...who }
  }

  async function finish() {
    receipt.value = await light('post', '/api/basket/submissions/finish', { body: { note: note.value }, headers: { 'Accept-Language': headers.value['Accept-Language']!, 'Oak-Submission': submission } })
    kept.forget()
    list.clear()
    phase.value = 'done'
  }

  function pause() {
    phase.value = 'paused'
    for (const one of chosen) {
      if (one.state === 'sending') {
        void one.upload?.abort()
        one.state = 'waiting'
        stops.get(one.id)?.()
      }
    }
    network.stop()
    remember()
  }

  function cancel(one: ChosenFile) {
    one.state = 'failed'
    list.remove(one)
    stops.get(one.id)?.()
  }

  function another() {
    list.clear()
    submission = ''
    note.value = ''
    leftOut.value = []
    declared = { name: '', email: '' }
    kept.forget()
    receipt.value = undefined
    phase.value = 'choosing'
  }

  const warn = (event: BeforeUnloadEvent) => {
    // Whatever the browser keeps goes on by itself; what it could not keep would have to be picked again.
    if (phase.value === 'sending' && chosen.some((one) => one.state !== 'there' && one.size > LARGE_BYTES)) event.preventDefault()
  }
  addEventListener('beforeunload', warn)
  onScopeDispose(() => removeEventListener('beforeunload', warn))

  return { ...list, phase, receipt, leftOut, note, rate, sentBytes, there, broken, begun, secondsLeft, waiting: network.waiting, online: network.online, send, pause, cancel, another, rememberTyped: remember, before, submission: () => submission }
}
