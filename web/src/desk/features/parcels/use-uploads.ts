import { reactive } from 'vue'
import { desk } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { putBytes } from '../../../api/put-in'

/** So much goes in one call; what breaks off loses no more than a part of it. */
const PART_BYTES = 64 * 1024 * 1024
const TRY_AGAIN_MILLISECONDS = [1_000, 3_000, 10_000, 30_000]

/** A file that the server knows of. */
export interface KnownFile {
  id: number
  name: string
  bytes: number
  came: number
  state: string
}

interface Under {
  id: number
  file: File
  came: number
  broken: boolean
}

/**
 * Puts files into a parcel or an exchange, one after another; each goes on where it stopped.
 *
 * @param known reads what is there by now
 */
export function useUploads(parcel: number, known: () => Promise<KnownFile[]>, changed: () => void, refused: (problem: ApiProblem) => void) {
  const under = reactive(new Map<number, Under>())
  let running = false

  /** Files chosen anew: those that the parcel waits for go on, the rest get a place. */
  async function take(files: File[], there: KnownFile[]): Promise<number[]> {
    let places: { id: number }[] = []
    const fresh: File[] = []
    for (const file of files) {
      const waits = there.find((one) => one.state === 'COMING' && !under.has(one.id) && one.name === file.name && one.bytes === file.size)
      if (waits) under.set(waits.id, { id: waits.id, file, came: waits.came, broken: false })
      else fresh.push(file)
    }
    if (fresh.length > 0) {
      places = await announce(fresh).catch((error: ApiProblem) => (fresh.length === 1 ? (refused(error), []) : each(fresh)))
      changed()
    }
    void run()
    return places.map((place) => place.id)
  }

  async function announce(files: File[]) {
    const places = await desk.announceFiles(parcel, files.map((file) => ({ name: file.name, bytes: file.size })))
    places.forEach((place, n) => under.set(place.id, { id: place.id, file: files[n]!, came: 0, broken: false }))
    return places
  }

  /** One that cannot be taken, such as an empty file, keeps none of the others out. */
  async function each(files: File[]) {
    const places: { id: number }[] = []
    for (const file of files) {
      try {
        places.push(...(await announce([file])))
      } catch (error) {
        refused(error as ApiProblem)
        // Without the server, or without room, asking for each of the others would be no better.
        if (![413, 422].includes((error as ApiProblem).status)) break
      }
    }
    return places
  }

  async function run() {
    if (running) return
    running = true
    for (let next = first(); next; next = first()) await putIn(next)
    running = false
  }

  const first = () => [...under.values()][0]

  async function putIn(one: Under) {
    for (let tries = 0; one.came < one.file.size; ) {
      try {
        const before = one.came
        one.came = await putBytes(parcel, one.id, before, one.file.slice(before, before + PART_BYTES), (bytes) => (one.came = before + bytes))
        one.broken = false
        tries = 0
      } catch (error) {
        const problem = error as ApiProblem
        if (!under.has(one.id)) return
        if (problem.status !== 0 && problem.status !== 503 && problem.status !== 423 && problem.code !== 'parcel-offset') {
          under.delete(one.id)
          return refused(problem)
        }
        one.broken = true
        await new Promise((done) => setTimeout(done, TRY_AGAIN_MILLISECONDS[Math.min(tries++, TRY_AGAIN_MILLISECONDS.length - 1)]))
        // What came before it broke off counts.
        const now = await known().catch(() => undefined)
        one.came = now?.find((file) => file.id === one.id)?.came ?? one.came
      }
    }
    under.delete(one.id)
    changed()
  }

  function drop(id: number) {
    under.delete(id)
  }

  return { under, take, drop }
}
