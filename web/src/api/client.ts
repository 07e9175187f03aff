import createClient from 'openapi-fetch'
import { ApiProblem } from './problem'
import type { paths } from './schema'

/** Every call to the server: paths, parameters and bodies are those of the API description, and a refusal is thrown as its problem detail. */
export const client = createClient<paths>({ headers: { Accept: 'application/json' } })

client.use({
  onRequest({ request }) {
    const token = request.method === 'GET' ? undefined : document.cookie.split('; ').find((cookie) => cookie.startsWith('XSRF-TOKEN='))
    if (token) request.headers.set('X-XSRF-TOKEN', decodeURIComponent(token.slice('XSRF-TOKEN='.length)))
    return request
  },
  async onResponse({ response }) {
    if (!response.ok) throw ApiProblem.read(response.status, await response.text())
    return response
  },
  onError: ({ error }) => (error instanceof ApiProblem ? error : ApiProblem.unreachable()),
})

const refused: ((problem: ApiProblem) => void)[] = []

/** Has somebody told of every refusal, whoever asked. */
export function onRefusal(listener: (problem: ApiProblem) => void): void {
  refused.push(listener)
}

/** What a call answers, by itself. */
export async function of<T>(call: Promise<{ data?: T }>): Promise<T> {
  try {
    return (await call).data as T
  } catch (error) {
    const problem = error instanceof ApiProblem ? error : ApiProblem.unreachable()
    refused.forEach((listener) => listener(problem))
    throw problem
  }
}

/** A file as a body, as it is. The description gives bytes as text, which is how OpenAPI writes them. */
export function bytes(content: Blob): { body: string; bodySerializer: () => Blob; headers: Record<string, string> } {
  return { body: '', bodySerializer: () => content, headers: { 'Content-Type': 'application/octet-stream' } }
}
