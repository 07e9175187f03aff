import type { Row, Schemas } from '../../../api/desk'
import { tileOf, type Standing } from '../../../shared/tile'
import { finished } from './board-filters'
import { FACTS, type Fact } from './use-columns'

/** By which column the board is sorted: by what presses, by the person, by a further column, or by one document. */
export type SortBy = 'pressing' | 'name' | Fact | `item-${number}`

export interface Sort {
  by: SortBy
  reverse: boolean
}

type Order = (a: Row, b: Row) => number

const words = new Intl.Collator('en-GB', { numeric: true })
const byName: Order = (a, b) => words.compare(a.name, b.name) || a.id - b.id

const ORDERS: Record<'pressing' | 'name' | Fact, Order> = {
  pressing: (a, b) => pressure(b) - pressure(a) || b.pastDeadlineMinutes - a.pastDeadlineMinutes || (a.deadline < b.deadline ? -1 : a.deadline > b.deadline ? 1 : byName(a, b)),
  name: byName,
  organisation: (a, b) => blankLast(a.organisation, b.organisation) || byName(a, b),
  reference: (a, b) => blankLast(a.reference, b.reference) || byName(a, b),
  groups: (a, b) => blankLast(a.groups, b.groups) || byName(a, b),
  deadline: (a, b) => (a.deadline < b.deadline ? -1 : a.deadline > b.deadline ? 1 : byName(a, b)),
  files: (a, b) => b.files - a.files || byName(a, b),
  last: (a, b) => ((b.lastArrival ?? '') < (a.lastArrival ?? '') ? -1 : (b.lastArrival ?? '') > (a.lastArrival ?? '') ? 1 : byName(a, b)),
}

/** How much one document of a basket presses. */
const PRESSING: Record<Standing, number> = { RETURNED: 6, PART: 5, WANTED: 4, ARRIVED: 3, ACCEPTED: 2, WAIVED: 1, NOT_OWED: 0 }
const OVERDUE = 10

export const PRESSING_FIRST: Sort = { by: 'pressing', reverse: false }

/** The order of a sort; `items` are the ids of the documents in the order of the tiles. */
export function orderOf({ by, reverse }: Sort, items: number[]): Order {
  const order = by.startsWith('item-') ? byDocument(items.indexOf(Number(by.slice(5)))) : ORDERS[by as Fact]
  return reverse ? (a, b) => order(b, a) : order
}

/** The sort after a click on a column: another column begins in its own direction, the same one turns round. */
export function clicked(sort: Sort, by: SortBy): Sort {
  return { by, reverse: sort.by === by && !sort.reverse }
}

/** A sort as it stands in the address, or undefined where it is the usual one. */
export function writtenSort({ by, reverse }: Sort): string | undefined {
  return by === 'pressing' && !reverse ? undefined : (reverse ? '-' : '') + by
}

export function readSort(written: unknown): Sort {
  if (typeof written !== 'string') return PRESSING_FIRST
  const reverse = written.startsWith('-')
  const by = reverse ? written.slice(1) : written
  return by === 'pressing' || by === 'name' || FACTS.includes(by as Fact) || /^item-\d+$/.test(by) ? { by: by as SortBy, reverse } : PRESSING_FIRST
}

function byDocument(n: number): Order {
  const pressing = (row: Row) => {
    const tile = tileOf(row.tiles[n] ?? 0)
    return PRESSING[tile.standing] + (tile.overdue ? OVERDUE : 0)
  }
  return (a, b) => pressing(b) - pressing(a) || byName(a, b)
}

function blankLast(a: string, b: string): number {
  return a === b ? 0 : !a ? 1 : !b ? -1 : words.compare(a, b)
}

/** How much a basket presses: overdue first, then what is about to be, then what waits for a look, then the rest. */
function pressure(row: Row): number {
  if (row.removed) return -1
  if (row.waived) return 0
  if (row.walkIn) return row.toCheck > 0 ? 3 : 1
  if (row.paused && !finished(row)) return row.toCheck > 0 ? 3 : 2
  if (!finished(row)) return { OVERDUE: 7, IN_GRACE: 6, DUE_SOON: 5, AHEAD: 4, ON_TIME: 4, LATE: 4 }[row.timeliness]
  return row.toCheck > 0 ? 3 : 2
}

/** The way a column is sorted just now, as ARIA names it. */
export function ariaSort(sort: Sort, by: SortBy): 'ascending' | 'descending' | undefined {
  const downwards = by === 'pressing' || by === 'files' || by === 'last' || by.startsWith('item-')
  return sort.by !== by ? undefined : downwards !== sort.reverse ? 'descending' : 'ascending'
}

/** The documents of a board, as a sort names them. */
export const itemIds = (items: Schemas['BoardItem'][]) => items.map((item) => item.id)
