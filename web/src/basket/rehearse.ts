import { ApiProblem } from '../api/problem'
import type { ChosenFile } from './chosen-file'
import type { Receipt } from './use-sending'

/** Larger files are not looked at; a rehearsal sends nothing else. */
const LOOKED_AT_BYTES = 8 * 1024 * 1024

/** Walks through the same steps without sending anything; nothing when something would be refused. */
export async function rehearse(chosen: ChosenFile[], who: { name: string; email: string } | undefined): Promise<Receipt | undefined> {
  if (who) await refuseAsReally('who', who)
  for (const one of chosen) {
    try {
      if (one.size <= LOOKED_AT_BYTES) await refuseAsReally(`files?item=${one.item.number}&name=${encodeURIComponent(one.name)}`, one.file!)
    } catch (error) {
      Object.assign(one, { state: 'failed', problem: (error as ApiProblem).detail })
    }
  }
  if (chosen.some((one) => one.problem)) return undefined
  for (const one of chosen) {
    for (let step = 1; step <= 4; step++) {
      await new Promise((resolve) => setTimeout(resolve, 60))
      Object.assign(one, { state: 'sending', sent: (one.size * step) / 4 })
    }
    one.state = 'there'
  }
  return {
    code: '0000-0000-0000',
    at: new Date().toISOString(),
    files: await Promise.all(chosen.map(async (one) => ({ item: one.item.title, name: one.name, bytes: one.size, sha256: await sha256(one.file!), sentBefore: false, waiting: false }))),
  }
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

async function sha256(file: File): Promise<string> {
  if (!crypto.subtle || file.size > 64 * 1024 * 1024) return ''
  const digest = await crypto.subtle.digest('SHA-256', await file.arrayBuffer())
  return Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('')
}
