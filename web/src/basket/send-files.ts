import type { Ref } from 'vue'
import { ApiProblem } from '../api/problem'
import type { ChosenFile } from './chosen-file'
import { nextTogether, problemsOf, sendTogether } from './send-together'
import type { useNetwork } from './use-network'

const AT_ONCE = 4
/** Files up to this size travel with the request that announces them. */
const ONE_REQUEST_BYTES = 4 * 1024 * 1024
/** How long is waited before each further try while the server says that it is busy. */
const RETRY_MILLISECONDS = [500, 1000, 2000, 4000, 8000, 15000, 30000, 30000, 30000, 30000]

type Tus = typeof import('tus-js-client')
interface UploadError extends Error {
  originalResponse?: { getStatus(): number; getBody(): string } | null
}

/** Whether the server may take it a little later. */
const later = (status: number) => status === 409 || status === 423 || status === 429 || (status >= 500 && status !== 507)

/** What the sending of files needs to know and to tell. */
export interface Way {
  chosen: ChosenFile[]
  phase: Ref<string>
  headers: Ref<Record<string, string>>
  network: ReturnType<typeof useNetwork>
  /** Bytes per second just now. */
  rate: Ref<number>
  /** What could not be taken of archives, in the server's words. */
  leftOut: Ref<string[]>
  /** What ends the waiting for a file, by the file's name in the browser's storage. */
  stops: Map<string, () => void>
  /** The key of the sending. */
  submission(): string
  /** The server does not know the sending any more. */
  lost(): void
  remember(one: ChosenFile): void
  fingerprint(submission: string, item: number, file: File): string
}

/** Sends the files that wait, several at once, until each is there, refused or given up. Loaded after the page is usable: what sends is not needed before something is sent. */
export async function sendFiles(way: Way): Promise<void> {
  const { chosen, phase, headers, network, rate, leftOut, stops } = way
  const meter = startMeter()
  try {
    await Promise.all(Array.from({ length: AT_ONCE }, worker))
  } finally {
    meter()
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
        const tus = await network.through(() => import('tus-js-client')).catch((error) => {
          // Paused before it was there: nothing is wrong, it goes on later.
          if (phase.value === 'sending') throw error
        })
        if (tus && one.state === 'sending') await sendOne(one, tus)
      }
    }
  }

  /** Sends small files together, again and again until each is there or refused; what is given up meanwhile stops it, and the others go on. */
  async function sendMany(files: ChosenFile[]) {
    for (const one of files) one.state = 'sending'
    for (let tries = 0; ; ) {
      const now = files.filter((one) => one.state === 'sending')
      if (now.length === 0) return
      const answer = await sendTogether(now, { ...headers.value, 'Oak-Submission': way.submission() }, (bytes) => spread(now, bytes), (abort) => now.forEach((one) => stops.set(one.id, abort)))
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

  function arrived(one: ChosenFile) {
    Object.assign(one, { state: 'there', sent: one.size, problem: '', upload: undefined })
    way.remember(one)
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
    if (problem.code === 'no-submission') way.lost()
  }

  /** One try; answers the error it ended with, and nothing when all is there or somebody stopped it. */
  function tried(one: ChosenFile, tus: Tus): Promise<UploadError | undefined> {
    return new Promise((resolve) => {
      one.upload ??= new tus.Upload(one.file!, {
        endpoint: '/api/uploads',
        headers: { ...headers.value, 'Oak-Submission': way.submission() },
        metadata: { filename: one.name, item: String(one.item.number), once: one.once },
        uploadDataDuringCreation: one.size <= ONE_REQUEST_BYTES,
        fingerprint: () => Promise.resolve(way.fingerprint(way.submission(), one.item.number, one.file!)),
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

  /** Measures the speed over the last few seconds. */
  function startMeter(): () => void {
    const samples: { at: number; sent: number }[] = []
    const timer = setInterval(() => {
      samples.push({ at: performance.now(), sent: chosen.reduce((sum, one) => sum + one.sent, 0) })
      if (samples.length > 10) samples.shift()
      const first = samples[0]!
      const last = samples[samples.length - 1]!
      rate.value = last.at > first.at ? ((last.sent - first.sent) * 1000) / (last.at - first.at) : 0
    }, 500)
    return () => clearInterval(timer)
  }
}
