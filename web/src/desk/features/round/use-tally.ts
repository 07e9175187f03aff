import type { BoardView, Row } from '../../../api/desk'
import { FILTERS, type Filter } from './board-filters'

/** What the desk shows of a round's totals. */
export type Counts = Omit<BoardView['counts'], 'byProgress' | 'byTimeliness'>
export type ListCounts = Record<Exclude<Filter, 'chosen'>, number> & { everybody: number }

/**
 * The totals of a board, kept true row by row: a changed row is taken out and put in again, so an arrival costs the same in a round of five and of fifty
 * thousand. The totals are those the server gives; see RoundCounts in the core.
 */
export class Tally {
  readonly lists: ListCounts
  readonly counts: Counts

  constructor(rows: Iterable<Row>) {
    this.lists = { everybody: 0, ...(Object.fromEntries(Object.keys(FILTERS).map((name) => [name, 0])) as Record<Exclude<Filter, 'chosen'>, number>) }
    this.counts = { asked: 0, complete: 0, percent: 0, waived: 0, walkIns: 0, paused: 0, files: 0, senders: 0, toCheck: 0, claimed: 0 }
    for (const row of rows) this.add(row, 1)
  }

  replace(before: Row | undefined, after: Row): void {
    if (before) this.add(before, -1)
    this.add(after, 1)
  }

  private add(row: Row, by: 1 | -1): void {
    for (const [name, passes] of Object.entries(FILTERS)) if (passes(row)) this.lists[name as keyof typeof FILTERS] += by
    if (row.removed) return
    const { counts, lists } = this
    lists.everybody += by
    counts.files += by * row.files
    counts.toCheck += by * row.toCheck
    counts.claimed += by * row.claimed
    counts.asked += row.lists.includes('ASKED') ? by : 0
    counts.senders = lists.sent
    counts.walkIns = lists.walkIns
    counts.waived = lists.waived
    counts.complete = lists.complete
    counts.paused = lists.paused
    counts.percent = counts.asked ? Math.floor((100 * counts.complete) / counts.asked) : 0
  }
}
