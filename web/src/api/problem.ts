export interface FieldError {
  field: string
  detail: string
}

/** A refusal by the server, as its problem detail (RFC 9457) tells it. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly title: string,
    readonly detail: string,
    readonly errors: FieldError[],
  ) {
    super(detail)
  }

  static read(status: number, body: string): ApiProblem {
    try {
      const problem = JSON.parse(body)
      return new ApiProblem(status, String(problem.type ?? '').split(':').pop() ?? '', problem.title ?? '', problem.detail ?? '', problem.errors ?? [])
    } catch {
      return new ApiProblem(status, 'unexpected', 'The server did not answer as expected', 'Please try again in a moment.', [])
    }
  }

  static unreachable(): ApiProblem {
    return new ApiProblem(0, 'unreachable', 'The server cannot be reached', 'Check your connection and try again. Nothing you typed or chose is lost.', [])
  }

  at(field: string): string {
    return this.errors.find((error) => error.field === field)?.detail ?? ''
  }
}
