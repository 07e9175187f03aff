import { ApiProblem } from './problem'

export async function call<T>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, {
      method,
      headers: { Accept: 'application/json', ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...csrf(method), ...headers },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
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
