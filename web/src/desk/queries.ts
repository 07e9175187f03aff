import { QueryClient, type QueryFilters, type QueryKey, keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import type { ApiProblem } from '../api/problem'
import type { LiveEvent } from './live'

declare module '@tanstack/vue-query' {
  interface Register {
    queryMeta: { on?: (event: LiveEvent) => boolean }
    defaultError: ApiProblem
  }
}

/** Everything read from the server. What is shown is read again when the server says that it changed, not on a guess. */
export const queries = new QueryClient({
  defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, refetchOnReconnect: false, networkMode: 'always', gcTime: 60_000 } },
})

/** An answer that is under way for the first time cannot be called off, and may be older than the change. */
const underWay = (state?: { data: unknown; fetchStatus: string }) => state?.data === undefined && state?.fetchStatus === 'fetching'

/** Reads again what fits; what is just being read for the first time once more after that. */
export async function readAgain(filters: QueryFilters) {
  const first = queries.getQueryCache().findAll(filters).filter((query) => underWay(query.state))
  await queries.invalidateQueries(filters)
  if (first.length > 0) await queries.invalidateQueries({ predicate: (query) => first.includes(query) })
}

interface Terms {
  /** Which events of the server make it stale. */
  on?: (event: LiveEvent) => boolean
  /** False while it cannot be asked for yet. */
  when?: MaybeRefOrGetter<boolean>
  /** What must not be shown from memory even for a moment, because people act on it. */
  fresh?: boolean
}

/**
 * Something read from the server: its value, the problem while it cannot be read, and a way to read it again.
 *
 * @param key its name, with everything that its answer depends on
 */
export function useRead<T>(key: MaybeRefOrGetter<QueryKey>, read: () => Promise<T>, { on, when = true, fresh = false }: Terms = {}) {
  const query = useQuery({
    queryKey: computed(() => toValue(key)),
    queryFn: read,
    meta: { on },
    enabled: computed(() => toValue(when)),
    placeholderData: keepPreviousData,
    // Answers are shown, never changed: watching each of the thousand rows of one costs three times what drawing it does.
    shallow: true,
    structuralSharing: !fresh,
    ...(fresh ? { gcTime: 0 } : {}),
  })
  const problem = computed(() => query.error.value ?? undefined)

  async function load() {
    const again = underWay(queries.getQueryState(toValue(key)))
    await query.refetch()
    if (again) await query.refetch()
  }

  return { value: query.data, problem, load }
}
