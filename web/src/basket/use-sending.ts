import { computed, onScopeDispose, ref, type Ref } from 'vue'
import { light } from '../api/light'
import { ApiProblem } from '../api/problem'
import type { components } from '../api/schema'
import type { ChosenFile } from './chosen-file'
import { keptSending } from './kept-sending'
import type { Page } from './use-page'
import { useChosen } from './use-chosen'
import { useNetwork } from './use-network'

export type Receipt = components['schemas']['Receipt']

const AT_ONCE = 4
/** Files up to this size travel with the request that announces them. */
const ONE_REQUEST_BYTES = 4 * 1024 * 1024
/** Files up to this size are looked at in a rehearsal, which sends nothing else. */
const LOOKED_AT_BYTES = 8 * 1024 * 1024
/** How long is waited before each further try while the server says that it is busy. */
const RETRY_MILLISECONDS = [500, 1000, 2000, 4000, 8000, 15000, 30000, 30000, 30000, 30000]

type Tus = typeof import('tus-js-client')
interface UploadError extends Error {
  originalResponse?: { getStatus(): number; getBody(): string } | null
}

/** Sending the files chosen, and the receipt. Whatever goes wrong, what was chosen stays chosen and what arrived stays arrived. */
export function useSending(token: string, headers: Ref<Record<string, string>>, rehearsal: boolean, page: Ref<Page | undefined>) {
  const list = useChosen(token, !rehearsal, () => page.value?.until)
  const { chosen, notices, bytes } = list
  const phase = ref<'choosing' | 'sending' | 'paused' | 'done'>('choosing')
  const receipt = ref<Receipt>()
  const rate = ref(0)
  const kept = keptSending(token)
  const before = rehearsal ? undefined : kept.find()
  const note = ref(before?.note ?? '')
  const network = useNetwork(() => phase.value === 'sending')
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
    if (rehearsal) return rehearse(who)
    phase.value = 'sending'
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
    const meter = startMeter()
    try {
      const tus = await network.through(() => import('tus-js-client'))
      await Promise.all(Array.from({ length: AT_ONCE }, () => worker(tus)))
    } finally {
      meter()
    }
    if ((phase.value as string) === 'paused') return
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

  async function worker(tus: Tus) {
    for (;;) {
      const one = chosen.find((other) => other.state === 'waiting')
      if (!one || phase.value !== 'sending') return
      one.state = 'sending'
      await sendOne(one, tus)
    }
  }

  /** Sends one file to its end, waiting out a network that is away for as long as it takes. */
  async function sendOne(one: ChosenFile, tus: Tus) {
    while (one.state === 'sending') {
      const error = await tried(one, tus)
      if (!error || one.state !== 'sending') return
      if (error.originalResponse) return fail(one, error.originalResponse)
      await network.wait()
    }
  }

  function fail(one: ChosenFile, response: { getStatus(): number; getBody(): string }) {
    const problem = ApiProblem.read(response.getStatus(), response.getBody())
    // Whoever gave the file up does not want to hear of it.
    Object.assign(one, { state: 'failed', problem: problem.detail, sent: 0, upload: undefined })
    if (problem.code === 'no-submission') submission = ''
  }

  /** One try; answers the error it ended with, and nothing when all is there or somebody stopped it. */
  function tried(one: ChosenFile, tus: Tus): Promise<UploadError | undefined> {
    return new Promise((resolve) => {
      one.upload ??= new tus.Upload(one.file!, {
        endpoint: '/api/uploads',
        headers: { ...headers.value, 'Oak-Submission': submission },
        metadata: { filename: one.name, item: String(one.item.number) },
        uploadDataDuringCreation: one.size <= ONE_REQUEST_BYTES,
        fingerprint: () => Promise.resolve(kept.fingerprint(submission, one.item.number, one.file!)),
        removeFingerprintOnSuccess: true,
        retryDelays: RETRY_MILLISECONDS,
      })
      Object.assign(one.upload.options, {
        onProgress: (sent: number) => {
          one.sent = sent
          network.works()
        },
        // A network that is away is waited out by ourselves; the library tries again what the server may take a little later.
        onShouldRetry: (error: UploadError) => {
          const status = error.originalResponse?.getStatus() ?? 0
          return status === 409 || status === 423 || status === 429 || (status >= 500 && status !== 507)
        },
        onSuccess: () => {
          Object.assign(one, { state: 'there', sent: one.size, problem: '', upload: undefined })
          list.remember(one)
          network.works()
          resolve(undefined)
        },
        onError: (error: UploadError) => resolve(error),
      })
      stops.set(one.id, () => resolve(undefined))
      void goOnOrStart(one.upload)
    })
  }

  /** A file whose sending was cut off, also by a reload, goes on where it stopped. */
  async function goOnOrStart(upload: NonNullable<ChosenFile['upload']>) {
    if (!upload.url) {
      const earlier = await upload.findPreviousUploads().catch(() => [])
      if (earlier.length > 0) upload.resumeFromPreviousUpload(earlier[0]!)
    }
    upload.start()
  }

  const stops = new Map<string, () => void>()

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

  /** Measures the speed over the last few seconds. */
  function startMeter(): () => void {
    const samples: { at: number; sent: number }[] = []
    const timer = setInterval(() => {
      samples.push({ at: performance.now(), sent: sentBytes.value })
      if (samples.length > 10) samples.shift()
      const first = samples[0]!
      const last = samples[samples.length - 1]!
      rate.value = last.at > first.at ? ((last.sent - first.sent) * 1000) / (last.at - first.at) : 0
    }, 500)
    return () => clearInterval(timer)
  }

  /** Walks through the same steps without sending anything. */
  async function rehearse(who: { name: string; email: string } | undefined) {
    phase.value = 'sending'
    if (who) await refuseAsReally('who', who)
    for (const one of chosen) {
      try {
        if (one.size <= LOOKED_AT_BYTES) await refuseAsReally(`files?item=${one.item.number}&name=${encodeURIComponent(one.name)}`, one.file!)
      } catch (error) {
        Object.assign(one, { state: 'failed', problem: (error as ApiProblem).detail })
      }
    }
    if (broken.value) {
      phase.value = 'choosing'
      return
    }
    for (const one of chosen) {
      for (let step = 1; step <= 4; step++) {
        await new Promise((resolve) => setTimeout(resolve, 60))
        Object.assign(one, { state: 'sending', sent: (one.size * step) / 4 })
      }
      one.state = 'there'
    }
    receipt.value = {
      code: '0000-0000-0000',
      at: new Date().toISOString(),
      files: await Promise.all(chosen.map(async (one) => ({ item: one.item.title, name: one.name, bytes: one.size, sha256: await sha256(one.file!), sentBefore: false }))),
    }
    phase.value = 'done'
  }

  /** Has the server refuse what it would refuse of a real sending. It keeps nothing. */
  async function refuseAsReally(what: string, body: Blob | { name: string; email: string }) {
    const token = document.cookie.split('; ').find((cookie) => cookie.startsWith('XSRF-TOKEN='))?.slice('XSRF-TOKEN='.length)
    const file = body instanceof Blob
    const response = await fetch(`/api${location.pathname.replace(/^\/rehearsal/, '/rounds')}/rehearsal/${what}`, {
      method: 'POST',
      headers: { Accept: 'application/json', 'Content-Type': file ? 'application/octet-stream' : 'application/json', ...(token ? { 'X-XSRF-TOKEN': decodeURIComponent(token) } : {}) },
      body: file ? body : JSON.stringify(body),
    }).catch(() => {
      throw ApiProblem.unreachable()
    })
    if (!response.ok) throw ApiProblem.read(response.status, await response.text())
  }

  function another() {
    list.clear()
    submission = ''
    note.value = ''
    declared = { name: '', email: '' }
    kept.forget()
    receipt.value = undefined
    phase.value = 'choosing'
  }

  const warn = (event: BeforeUnloadEvent) => {
    // Whatever the browser keeps goes on by itself; what it could not keep would have to be picked again.
    if (phase.value === 'sending' && chosen.some((one) => one.state !== 'there' && one.size > LOOKED_AT_BYTES)) event.preventDefault()
  }
  addEventListener('beforeunload', warn)
  onScopeDispose(() => removeEventListener('beforeunload', warn))

  return { ...list, phase, receipt, note, rate, sentBytes, there, broken, begun, secondsLeft, waiting: network.waiting, online: network.online, send, pause, cancel, another, rememberTyped: remember, before, submission: () => submission }
}

async function sha256(file: File): Promise<string> {
  if (!crypto.subtle || file.size > 64 * 1024 * 1024) return ''
  const digest = await crypto.subtle.digest('SHA-256', await file.arrayBuffer())
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('')
}
