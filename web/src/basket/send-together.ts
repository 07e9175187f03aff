import { ApiProblem } from '../api/problem'
import type { ChosenFile } from './chosen-file'

/** Files up to this size are sent several in a request: on a long way a request costs more than their bytes. */
const SMALL_BYTES = 512 * 1024
const MOST_FILES = 64
const MOST_BYTES = 2 * 1024 * 1024
const MOST_INDEX_BYTES = 50_000

/** Takes from the files that wait as many small ones as go into one request; none where the next file is not small. */
export function nextTogether(waiting: ChosenFile[]): ChosenFile[] {
  const together: ChosenFile[] = []
  let bytes = 0
  let index = 0
  for (const one of waiting) {
    const names = one.name.length * 3 + 120
    if (one.alone || one.size > SMALL_BYTES || bytes + one.size > MOST_BYTES || index + names > MOST_INDEX_BYTES || together.length === MOST_FILES) break
    together.push(one)
    bytes += one.size
    index += names
  }
  return together
}

export interface Answered {
  /** 0 when there was no answer. */
  status: number
  body: string
}

/** One try to send them; `progress` hears how many bytes of the files went. The request can be given up through `stop`. */
export function sendTogether(files: ChosenFile[], headers: Record<string, string>, progress: (bytes: number) => void, stop: (abort: () => void) => void): Promise<Answered> {
  const index = new TextEncoder().encode(JSON.stringify(files.map((one) => ({ item: one.item.number, name: one.name, bytes: one.size, once: one.once }))))
  return new Promise((resolve) => {
    const request = new XMLHttpRequest()
    stop(() => request.abort())
    request.open('POST', '/api/basket/files')
    for (const [name, value] of Object.entries({ ...headers, Accept: 'application/json', 'Content-Type': 'application/octet-stream', 'Oak-Index': String(index.byteLength) })) request.setRequestHeader(name, value)
    request.upload.onprogress = (event) => progress(Math.max(0, event.loaded - index.byteLength))
    request.onload = () => resolve({ status: request.status, body: request.responseText })
    request.onerror = request.onabort = request.ontimeout = () => resolve({ status: 0, body: '' })
    request.send(new Blob([index, ...files.map((one) => one.file!)]))
  })
}

/** What became of each file, in their order; nothing for one that was received. */
export function problemsOf(body: string): (ApiProblem | undefined)[] {
  const answers = JSON.parse(body) as { problem: { status: number } | null }[]
  return answers.map(({ problem }) => (problem ? ApiProblem.read(problem.status, JSON.stringify(problem)) : undefined))
}
