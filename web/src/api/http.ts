import { ApiProblem } from './problem'

/** Sends JSON and reads JSON; a refusal is thrown as its problem detail. */
export function call<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<T> {
  return exchange<T>(method, path, body === undefined ? undefined : JSON.stringify(body), { ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...headers })
}

/** Sends a file as it is and reads JSON. */
export function send<T>(path: string, content: Blob): Promise<T> {
  return exchange<T>('POST', path, content, { 'Content-Type': 'application/octet-stream' })
}

async function exchange<T>(method: string, path: string, body: BodyInit | undefined, headers: Record<string, string>): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, { method, headers: { Accept: 'application/json', ...csrf(method), ...headers }, body })
  } catch {
    throw ApiProblem.unreachable()
  }
  const text = await response.text()
  if (!response.ok) throw ApiProblem.read(response.status, text)
  return (text ? JSON.parse(text) : undefined) as T
}

function csrf(method: string): Record<string, string> {
  if (method === 'GET') return {}
  const token = document.cookie.split('; ').find((cookie) => cookie.startsWith('XSRF-TOKEN='))
  return token ? { 'X-XSRF-TOKEN': decodeURIComponent(token.slice('XSRF-TOKEN='.length)) } : {}
}
