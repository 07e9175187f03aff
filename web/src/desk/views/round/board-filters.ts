import type { Row } from '../../../api/desk'

type List = Row['lists'][number]

/** The lists a board can be narrowed down to. Every number on the page opens the one it counts. */
export type Filter = 'owes' | 'overdue' | 'toCheck' | 'claimed' | 'neverOpened' | 'complete' | 'sent' | 'waived' | 'walkIns' | 'paused' | 'removed' | 'handOver' | 'chosen'

export const CHIPS: Filter[] = ['owes', 'overdue', 'toCheck', 'neverOpened']
export const FURTHER: Filter[] = ['complete', 'sent', 'waived', 'walkIns', 'claimed', 'paused', 'handOver', 'removed']

/** Which list of the server's each of them is: which baskets belong to it is decided there, in one place (BasketView in the core). */
const LISTS: Record<Exclude<Filter, 'chosen'>, List> = {
  owes: 'OWES',
  overdue: 'OVERDUE',
  toCheck: 'TO_CHECK',
  claimed: 'CLAIMED',
  neverOpened: 'NEVER_OPENED',
  complete: 'COMPLETE',
  sent: 'SENT',
  waived: 'WAIVED',
  walkIns: 'WALK_INS',
  paused: 'PAUSED',
  handOver: 'HAND_OVER',
  removed: 'REMOVED',
}

export const FILTERS = Object.fromEntries(Object.entries(LISTS).map(([name, list]) => [name, (row: Row) => row.lists.includes(list)])) as Record<Exclude<Filter, 'chosen'>, (row: Row) => boolean>

export function isFilter(name: unknown): name is Filter {
  return typeof name === 'string' && (name in FILTERS || name === 'chosen')
}

export function finished(row: Row): boolean {
  return row.progress === 'COMPLETE' || row.progress === 'CHECKED'
}

export type Sort = 'pressing' | 'name' | 'organisation' | 'reference' | 'groups' | 'deadline' | 'files' | 'last'
export type GroupBy = '' | 'groups' | 'organisation' | 'standing'

const words = new Intl.Collator('en-GB', { numeric: true })
const byName = (a: Row, b: Row) => words.compare(a.name, b.name) || a.id - b.id

export const ORDERS: Record<Sort, (a: Row, b: Row) => number> = {
  pressing: (a, b) => pressure(b) - pressure(a) || b.pastDeadlineMinutes - a.pastDeadlineMinutes || (a.deadline < b.deadline ? -1 : a.deadline > b.deadline ? 1 : byName(a, b)),
  name: byName,
  organisation: (a, b) => blankLast(a.organisation, b.organisation) || byName(a, b),
  reference: (a, b) => blankLast(a.reference, b.reference) || byName(a, b),
  groups: (a, b) => blankLast(a.groups, b.groups) || byName(a, b),
  deadline: (a, b) => (a.deadline < b.deadline ? -1 : a.deadline > b.deadline ? 1 : byName(a, b)),
  files: (a, b) => b.files - a.files || byName(a, b),
  last: (a, b) => ((b.lastArrival ?? '') < (a.lastArrival ?? '') ? -1 : (b.lastArrival ?? '') > (a.lastArrival ?? '') ? 1 : byName(a, b)),
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
