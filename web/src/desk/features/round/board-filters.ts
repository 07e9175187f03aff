import type { Row } from '../../../api/desk'

type List = Row['lists'][number]

/** The lists a board can be narrowed down to. Every number on the page opens the one it counts. */
export type Filter = 'owes' | 'overdue' | 'toCheck' | 'claimed' | 'neverOpened' | 'complete' | 'sent' | 'waived' | 'walkIns' | 'paused' | 'removed' | 'handOver' | 'chosen'

/** Always offered. */
export const CHIPS: Filter[] = ['owes', 'overdue', 'toCheck', 'neverOpened']
/** Offered while somebody is in them. */
export const FURTHER: Filter[] = ['claimed', 'handOver', 'walkIns', 'waived', 'paused', 'removed']
/** Offered on the line of the round. */
export const TOTALS: Filter[] = ['complete', 'sent']

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

export type GroupBy = '' | 'groups' | 'organisation' | 'standing'

export const GROUPINGS: GroupBy[] = ['', 'groups', 'organisation', 'standing']
