import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { Row } from '../../../api/desk'
import { text } from '../../../text/desk'
import { FILTERS, type Filter, type GroupBy } from './board-filters'
import { orderOf, type Sort } from './board-sort'
import { standingWords } from './standing-words'

/** One line of the table: a row, or the heading of a group. */
export type Line = { kind: 'row'; id: number } | { kind: 'group'; name: string; count: number }

export interface BoardRows {
  rows: Map<number, Row>
  pulse: Ref<number>
  onChange: (listener: (row: Row | undefined) => void) => void
}

/** What is wanted of the board, and the ids of its documents. */
export interface Shown {
  filter: Ref<Filter | undefined>
  sort: Ref<Sort>
  groupBy: Ref<GroupBy>
  items: Ref<number[]>
}

/**
 * The rows as shown: filtered, searched, sorted and grouped. While the pointer is in the table or a row has the keyboard, rows keep their places
 * whatever arrives; they are put in order again afterwards.
 */
export function useBoardRows({ rows, pulse, onChange }: BoardRows, { filter, sort, groupBy, items }: Shown, chosen: Set<number>) {
  const search = ref('')
  const held = ref(false)
  const order = shallowRef<number[]>([])
  const compare = computed(() => orderOf(sort.value, items.value))
  let stale = false

  function passes(row: Row): boolean {
    const wanted = filter.value
    if (wanted === 'chosen' ? !chosen.has(row.id) : wanted ? !FILTERS[wanted](row) : row.removed) return false
    const words = search.value.trim().toLocaleLowerCase()
    return !words || `${row.name} ${row.email} ${row.organisation} ${row.reference} ${row.groups}`.toLocaleLowerCase().includes(words)
  }

  function arrange() {
    stale = false
    order.value = [...rows.values()].filter(passes).sort(compare.value).map((row) => row.id)
  }

  /** Puts one changed row where it belongs, without sorting the others again. */
  function settle(row: Row) {
    const without = order.value.filter((id) => id !== row.id)
    if (passes(row)) {
      let low = 0
      let high = without.length
      while (low < high) {
        const middle = (low + high) >> 1
        if (compare.value(rows.get(without[middle]!)!, row) < 0) low = middle + 1
        else high = middle
      }
      without.splice(low, 0, row.id)
    }
    order.value = without
  }

  watch([filter, compare, search], arrange)
  watch(held, (now) => !now && stale && arrange())
  onChange((row) => {
    if (!row) return held.value && rows.size > 0 && order.value.length > 0 ? keepPlaces() : arrange()
    if (!held.value) return settle(row)
    stale = true
    if (!order.value.includes(row.id) && passes(row)) order.value = [...order.value, row.id]
  })

  /** After everything was loaded again: rows that are gone leave, new ones come last, the others stay. */
  function keepPlaces() {
    stale = true
    const there = new Set(order.value)
    order.value = [...order.value.filter((id) => rows.has(id)), ...[...rows.values()].filter((row) => !there.has(row.id) && passes(row)).map((row) => row.id)]
  }

  function groupsOf(row: Row): string[] {
    if (groupBy.value === 'standing') return [standingWords(row).main]
    const named = groupBy.value === 'groups' ? row.groups.split(', ').filter(Boolean) : [row.organisation].filter(Boolean)
    return named.length ? named : [text.board.noGroup]
  }

  const lines = computed<Line[]>(() => {
    if (!groupBy.value) return order.value.map((id) => ({ kind: 'row', id }))
    void pulse.value
    const groups = new Map<string, number[]>()
    for (const id of order.value) {
      for (const name of groupsOf(rows.get(id)!)) {
        const there = groups.get(name)
        if (there) there.push(id)
        else groups.set(name, [id])
      }
    }
    const names = groupBy.value === 'standing' ? [...groups.keys()] : [...groups.keys()].sort((a, b) => Number(a === text.board.noGroup) - Number(b === text.board.noGroup) || a.localeCompare(b))
    return names.flatMap((name) => [{ kind: 'group', name, count: groups.get(name)!.length } as Line, ...groups.get(name)!.map((id): Line => ({ kind: 'row', id }))])
  })

  return { search, held, order, lines }
}
