import { computed, onScopeDispose, ref, type Ref } from 'vue'
import { light } from '../api/light'
import { ApiProblem } from '../api/problem'
import type { components } from '../api/schema'
import type { ChosenFile } from './chosen-file'
import { keptSending } from './kept-sending'
import { rehearse } from './rehearse'
import type { Page } from './use-page'
import { useChosen } from './use-chosen'
import { nextTogether, problemsOf, sendTogether } from './send-together'
import { useNetwork } from './use-network'

export type Receipt = components['schemas']['Receipt']

const AT_ONCE = 4
/** Files up to this size travel with the request that announces them. */
const ONE_REQUEST_BYTES = 4 * 1024 * 1024
/** Files above this size are worth a word before the page is left. */
const LARGE_BYTES = 8 * 1024 * 1024
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
  /** What could not be taken of archives, in the server's words. */
  const leftOut = ref<string[]>([])
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
    phase.value = 'sending'
    if (rehearsal) {
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
    const meter = startMeter()
    try {
      await Promise.all(Array.from({ length: AT_ONCE }, worker))
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

  async function worker() {
    for (;;) {
      const waits = chosen.filter((other) => other.state === 'waiting')
      if (waits.length === 0 || phase.value !== 'sending') return
      const together = nextTogether(waits)
      if (together.length > 0) await sendMany(together)
      else {
        const one = waits[0]!
        one.state = 'sending'
        const tus = await network.through(() => import('tus-js-client'))
        if (one.state === 'sending') await sendOne(one, tus)
      }
    }
  }

  /** Sends small files together, again and again until each is there or refused; what is given up meanwhile stops it, and the others go on. */
  async function sendMany(files: ChosenFile[]) {
    for (const one of files) one.state = 'sending'
    for (let tries = 0; ; ) {
      const now = files.filter((one) => one.state === 'sending')
      if (now.length === 0) return
      const answer = await sendTogether(now, { ...headers.value, 'Oak-Submission': submission }, (bytes) => spread(now, bytes), (abort) => now.forEach((one) => stops.set(one.id, abort)))
      if (now.some((one) => one.state !== 'sending')) continue
      if (answer.status === 0) {
        await network.wait()
        continue
      }
      network.works()
      if (answer.status === 429) {
        for (const one of now) Object.assign(one, { state: 'waiting', alone: true, sent: 0 })
        return
      }
      const answers = answer.status === 200 ? problemsOf(answer.body) : now.map(() => ApiProblem.read(answer.status, answer.body))
      const pause = RETRY_MILLISECONDS[tries++]
      now.forEach((one, n) => {
        const problem = answers[n]
        if (!problem) arrived(one)
        else if (!pause || !later(problem.status)) refuse(one, problem)
      })
      if (pause && files.some((one) => one.state === 'sending')) await new Promise((resolve) => setTimeout(resolve, pause))
    }
  }

  /** They go in their order, so the first bytes are those of the first file. */
  function spread(files: ChosenFile[], bytes: number) {
    let left = bytes
    for (const one of files) {
      one.sent = Math.min(one.size, left)
      left -= one.sent
    }
    network.works()
  }

  /** Whether the server may take it a little later. */
  const later = (status: number) => status === 409 || status === 423 || status === 429 || (status >= 500 && status !== 507)

  function arrived(one: ChosenFile) {
    Object.assign(one, { state: 'there', sent: one.size, problem: '', upload: undefined })
    list.remember(one)
    network.works()
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
    refuse(one, ApiProblem.read(response.getStatus(), response.getBody()))
  }

  function refuse(one: ChosenFile, problem: ApiProblem) {
    // Sent again it is another sending of it; and what is not known under the name it had before the page was loaded anew is begun at once under another.
    const before = one.once
    one.once = crypto.randomUUID?.() ?? `${Date.now()} ${Math.random()}`
    if (problem.code === 'no-upload' && before === one.id && one.upload === undefined) return
    if (problem.code === 'archive-partly') {
      // What could be taken is received; the rest is told beside the receipt and need not come in this archive.
      leftOut.value.push(problem.detail)
      arrived(one)
      return
    }
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
        metadata: { filename: one.name, item: String(one.item.number), once: one.once },
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
        onShouldRetry: (error: UploadError) => later(error.originalResponse?.getStatus() ?? 0),
        onSuccess: () => {
          arrived(one)
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
