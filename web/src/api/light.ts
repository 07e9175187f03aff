import { ApiProblem } from './problem'
import type { paths } from './schema'

type Method = 'get' | 'post' | 'put'
type With<M extends Method> = { [P in keyof paths]: paths[P] extends Record<M, { responses: object }> ? P : never }[keyof paths]
type Operation<P extends keyof paths, M extends Method> = paths[P] extends Record<M, infer O> ? O : never
type Answered<O> = O extends { responses: infer R } ? (R extends Record<200 | 201, infer A> ? Content<A> : R extends Record<200, infer A> ? Content<A> : R extends Record<201, infer A> ? Content<A> : void) : never
type Content<A> = A extends { content: infer C } ? C[keyof C] : void
type Body<O> = O extends { requestBody?: infer B } ? (NonNullable<B> extends { content: infer C } ? C[keyof C] : undefined) : undefined

/** Calls for the page of senders, on the types of the API description, and light enough for a poor line. A refusal is thrown as its problem detail. */
export async function light<M extends Method, P extends With<M>>(
  method: M,
  path: P,
  { body, headers = {}, id }: { body?: Body<Operation<P, M>>; headers?: Record<string, string>; id?: string } = {},
): Promise<Answered<Operation<P, M>>> {
  const address = path.replace('{id}', encodeURIComponent(id ?? ''))
  let response: Response
  try {
    response = await fetch(address, {
      method: method.toUpperCase(),
      headers: { Accept: 'application/json', ...(body === undefined ? {} : { 'Content-Type': 'application/json' }), ...headers },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
  } catch {
    throw ApiProblem.unreachable()
  }
  const answer = await response.text()
  if (!response.ok) throw ApiProblem.read(response.status, answer)
  return JSON.parse(answer || 'null')
}
