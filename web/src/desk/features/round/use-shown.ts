import { computed, onMounted } from 'vue'
import { useRoute, useRouter, type LocationQueryRaw } from 'vue-router'
import { GROUPINGS, isFilter, type Filter, type GroupBy } from './board-filters'
import { readSort, writtenSort, type Sort } from './board-sort'

const KEPT = ['show', 'sort', 'group', 'columns', 'hidden'] as const

/**
 * What is wanted of a round's board: which list, in which order, in which groups, with which columns. It stands in the address, so that a link shows the same;
 * and it is kept in this browser for each round, for a board that is opened without.
 */
export function useShown(roundId: number) {
  const route = useRoute()
  const router = useRouter()
  const key = `oak-board-${roundId}`

  onMounted(() => {
    const kept = read(key)
    if (!KEPT.some((name) => name in route.query) && Object.keys(kept).length > 0) void router.replace({ query: { ...route.query, ...kept } })
  })

  function put(change: LocationQueryRaw) {
    const query = { ...route.query, ...change }
    localStorage.setItem(key, JSON.stringify(Object.fromEntries(KEPT.filter((name) => name !== 'show' && query[name] !== undefined).map((name) => [name, query[name]]))))
    void router.replace({ query })
  }

  const filter = computed<Filter | undefined>({
    get: () => (isFilter(route.query.show) ? route.query.show : undefined),
    set: (show) => put({ show }),
  })
  const sort = computed<Sort>({ get: () => readSort(route.query.sort), set: (wanted) => put({ sort: writtenSort(wanted) }) })
  const groupBy = computed<GroupBy>({
    get: () => GROUPINGS.find((one) => one === route.query.group) ?? '',
    set: (group) => put({ group: group || undefined }),
  })

  return { filter, sort, groupBy, put }
}

function read(key: string): Record<string, string> {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? '{}') as Record<string, unknown>
    return Object.fromEntries(Object.entries(kept).filter(([name, value]) => KEPT.includes(name as 'show') && typeof value === 'string')) as Record<string, string>
  } catch {
    return {}
  }
}
