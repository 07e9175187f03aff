/** A file as this browser remembers it for a link until it is sent. */
export interface KeptFile {
  token: string
  id: string
  item: number
  name: string
  size: number
  lastModified: number
  /** Tells the same content by its size and its beginning; empty where the browser cannot tell. */
  print: string
  /** Whether all of it has arrived. */
  there: boolean
  /** Missing where the browser had no room for it. */
  content?: Blob
  /** Until when it is remembered, in milliseconds. */
  until: number
}

const DATABASE = 'oak-basket'
const STORE = 'files'
/** Larger files are remembered by name only: copying them takes a phone's time and room. */
const MOST_BYTES = 200 * 1024 * 1024
const HEAD_BYTES = 64 * 1024

/** What tells a file from another one of the same name, at the price of reading its beginning. */
export async function printOf(file: Blob): Promise<string> {
  if (!crypto.subtle) return ''
  try {
    const digest = await crypto.subtle.digest('SHA-256', await file.slice(0, HEAD_BYTES).arrayBuffer())
    return `${file.size} ${Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('')}`
  } catch {
    return ''
  }
}

function done<T>(request: IDBRequest<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result)
    request.onerror = () => reject(request.error)
  })
}

let opened: Promise<IDBDatabase> | undefined

function database(): Promise<IDBDatabase> {
  opened ??= new Promise((resolve, reject) => {
    const request = indexedDB.open(DATABASE, 1)
    request.onupgradeneeded = () => request.result.createObjectStore(STORE, { keyPath: ['token', 'id'] })
    request.onsuccess = () => resolve(request.result)
    request.onerror = () => reject(request.error)
  })
  return opened
}

async function store(mode: IDBTransactionMode): Promise<IDBObjectStore> {
  return (await database()).transaction(STORE, mode).objectStore(STORE)
}

/** Remembers chosen files in this browser. Where it keeps nothing, everything works but that. */
export function keptFiles(token: string) {
  async function find(): Promise<KeptFile[]> {
    try {
      const all = await done<KeptFile[]>((await store('readonly')).getAll())
      const now = Date.now()
      for (const old of all.filter((one) => one.until < now)) await forget(old.id, old.token)
      return all.filter((one) => one.token === token && one.until >= now)
    } catch {
      return []
    }
  }

  async function keep(file: Omit<KeptFile, 'token'>) {
    const whole = { ...file, token }
    try {
      await done((await store('readwrite')).put(file.size > MOST_BYTES ? { ...whole, content: undefined } : whole))
    } catch {
      await (await store('readwrite').catch(() => undefined))?.put({ ...whole, content: undefined })
    }
  }

  async function forget(id: string, of = token) {
    try {
      await done((await store('readwrite')).delete([of, id]))
    } catch {
      // There was nothing to forget.
    }
  }

  async function forgetAll() {
    for (const one of await find()) await forget(one.id)
  }

  return { find, keep, forget, forgetAll }
}
