import type { Upload } from 'tus-js-client'
import { computed, onScopeDispose, reactive, ref, type Ref } from 'vue'
import { light } from '../api/light'
import { ApiProblem } from '../api/problem'
import type { components } from '../api/schema'
import { text } from '../text/basket'
import { problemOf } from './choosing'
import { keptSending } from './kept-sending'
import type { PageItem } from './use-page'

export type Receipt = components['schemas']['Receipt']
export type FileState = 'chosen' | 'waiting' | 'sending' | 'there' | 'failed'

export interface ChosenFile {
  key: number
  item: PageItem
  file: File
  state: FileState
  problem: string
  sent: number
  upload?: Upload
}

const AT_ONCE = 3
/** Files up to this size travel with the request that announces them. */
const ONE_REQUEST_BYTES = 4 * 1024 * 1024
/** Files up to this size are looked at in a rehearsal, which sends nothing else. */
const LOOKED_AT_BYTES = 8 * 1024 * 1024
const RETRY_MILLISECONDS = [0, 1000, 2000, 4000, 8000, 15000, 30000, 30000, 30000, 30000]

/** The files chosen, sending them, and the receipt. Whatever goes wrong, what was chosen stays chosen and what arrived stays arrived. */
export function useSending(headers: Ref<Record<string, string>>, rehearsal: boolean) {
  const chosen = reactive<ChosenFile[]>([])
  const notices = reactive<Record<number, string>>({})
  const phase = ref<'choosing' | 'sending' | 'paused' | 'done'>('choosing')
  const receipt = ref<Receipt>()
  const retrying = ref(false)
  const rate = ref(0)
  const kept = keptSending(headers.value['Oak-Link'] ?? '')
  const before = rehearsal ? undefined : kept.find()
  let submission = before?.submission ?? ''
  let declared = { name: before?.name ?? '', email: before?.email ?? '' }
  let nextKey = 1

  const bytes = computed(() => chosen.reduce((sum, one) => sum + one.file.size, 0))
  const sentBytes = computed(() => chosen.reduce((sum, one) => sum + one.sent, 0))
  const there = computed(() => chosen.filter((one) => one.state === 'there').length)
  const broken = computed(() => chosen.some((one) => one.problem))
  const begun = computed(() => there.value > 0 || chosen.some((one) => one.state === 'failed'))
  const secondsLeft = computed(() => (rate.value > 0 ? Math.ceil((bytes.value - sentBytes.value) / rate.value) : 0))

  function add(item: PageItem, files: File[]) {
    delete notices[item.number]
    const room = Math.max(0, item.maxFiles - item.arrived)
    let refused = 0
    const takesTheOnlyPlace = room === 1 && files.length === 1
    for (const file of files) {
      const here = chosen.filter((one) => one.item.number === item.number)
      if (here.some((one) => one.file.name === file.name && one.file.size === file.size && one.file.lastModified === file.lastModified)) {
        notices[item.number] = text.already(file.name)
      } else if (takesTheOnlyPlace && here.length === 1 && here[0]!.state !== 'there') {
        remove(here[0]!)
        push(item, file)
      } else if (here.length >= room) {
        refused++
      } else {
        push(item, file)
      }
    }
    if (refused > 0) notices[item.number] = text.tooMany(room, refused)
  }

  function push(item: PageItem, file: File) {
    chosen.push({ key: nextKey++, item, file, state: 'chosen', problem: problemOf(file, item), sent: 0 })
  }

  function remove(one: ChosenFile) {
    void one.upload?.abort(one.state !== 'there')
    const at = chosen.findIndex((other) => other.key === one.key)
    if (at >= 0) chosen.splice(at, 1)
    delete notices[one.item.number]
  }

  /** Sends everything that is not there yet. Throws a problem that concerns the sending as a whole. */
  async function send(who: { name: string; email: string } | undefined) {
    if (rehearsal) return rehearse(who)
    await beginOrCorrect(who ?? { name: '', email: '' })
    phase.value = 'sending'
    for (const number of Object.keys(notices)) delete notices[Number(number)]
    for (const one of chosen) {
      if (one.state !== 'there') Object.assign(one, { state: 'waiting', problem: '' })
    }
    const meter = startMeter()
    try {
      const tus = await import('tus-js-client')
      await Promise.all(Array.from({ length: AT_ONCE }, () => worker(tus)))
    } finally {
      meter()
      retrying.value = false
    }
    if ((phase.value as string) === 'paused') return
    phase.value = 'choosing'
    if (chosen.length > 0 && chosen.every((one) => one.state === 'there')) await finish()
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
    kept.keep({ submission, ...declared })
  }

  async function finish() {
    receipt.value = await light('post', '/api/basket/submissions/finish', { headers: { 'Oak-Submission': submission } })
    kept.forget()
    phase.value = 'done'
  }

  async function worker(tus: typeof import('tus-js-client')) {
    for (;;) {
      const one = chosen.find((other) => other.state === 'waiting')
      if (!one || phase.value !== 'sending') return
      one.state = 'sending'
      await sendOne(one, tus)
    }
  }

  function sendOne(one: ChosenFile, tus: typeof import('tus-js-client')): Promise<void> {
    return new Promise((resolve) => {
      one.upload ??= new tus.Upload(one.file, {
        endpoint: '/api/uploads',
        headers: { ...headers.value, 'Oak-Submission': submission },
        metadata: { filename: one.file.name, item: String(one.item.number) },
        uploadDataDuringCreation: one.file.size <= ONE_REQUEST_BYTES,
        fingerprint: () => Promise.resolve(kept.fingerprint(submission, one.item.number, one.file)),
        removeFingerprintOnSuccess: true,
        retryDelays: RETRY_MILLISECONDS,
      })
      Object.assign(one.upload.options, {
        onProgress: (sent: number) => {
          one.sent = sent
          retrying.value = false
        },
        onShouldRetry: (error: { originalResponse?: { getStatus(): number } | null }) => {
          const status = error.originalResponse?.getStatus() ?? 0
          const again = status === 0 || status === 409 || status === 423 || status === 429 || (status >= 500 && status !== 507)
          retrying.value = again
          return again
        },
        onSuccess: () => {
          Object.assign(one, { state: 'there', sent: one.file.size })
          resolve()
        },
        onError: (error: Error & { originalResponse?: { getStatus(): number; getBody(): string } | null }) => {
          const response = error.originalResponse
          const problem = response ? ApiProblem.read(response.getStatus(), response.getBody()) : ApiProblem.unreachable()
          Object.assign(one, { state: 'failed', problem: problem.detail, sent: response ? 0 : one.sent })
          if (response) one.upload = undefined
          resolve()
        },
      })
      stops.set(one.key, resolve)
      void goOnOrStart(one.upload)
    })
  }

  /** A file whose sending was cut off, also by a reload, goes on where it stopped when it is chosen again. */
  async function goOnOrStart(upload: Upload) {
    const earlier = await upload.findPreviousUploads().catch(() => [])
    if (earlier.length > 0) upload.resumeFromPreviousUpload(earlier[0]!)
    upload.start()
  }

  const stops = new Map<number, () => void>()

  function pause() {
    phase.value = 'paused'
    for (const one of chosen) {
      if (one.state === 'sending') {
        void one.upload?.abort()
        one.state = 'waiting'
        stops.get(one.key)?.()
      }
    }
  }

  function cancel(one: ChosenFile) {
    remove(one)
    stops.get(one.key)?.()
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
        if (one.file.size <= LOOKED_AT_BYTES) await refuseAsReally(`files?item=${one.item.number}&name=${encodeURIComponent(one.file.name)}`, one.file)
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
        Object.assign(one, { state: 'sending', sent: (one.file.size * step) / 4 })
      }
      one.state = 'there'
    }
    receipt.value = {
      code: '0000-0000-0000',
      at: new Date().toISOString(),
      files: await Promise.all(chosen.map(async (one) => ({ item: one.item.title, name: one.file.name, bytes: one.file.size, sha256: await sha256(one.file), sentBefore: false }))),
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
    chosen.splice(0)
    submission = ''
    declared = { name: '', email: '' }
    kept.forget()
    receipt.value = undefined
    phase.value = 'choosing'
  }

  const warn = (event: BeforeUnloadEvent) => {
    if (phase.value === 'sending' || phase.value === 'paused') event.preventDefault()
  }
  addEventListener('beforeunload', warn)
  onScopeDispose(() => removeEventListener('beforeunload', warn))

  return { chosen, notices, phase, receipt, retrying, rate, bytes, sentBytes, there, broken, begun, secondsLeft, add, remove, send, pause, cancel, another, finish, declaredBefore: before }
}

async function sha256(file: File): Promise<string> {
  if (!crypto.subtle || file.size > 64 * 1024 * 1024) return ''
  const digest = await crypto.subtle.digest('SHA-256', await file.arrayBuffer())
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('')
}
