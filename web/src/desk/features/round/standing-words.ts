import type { Row, Schemas } from '../../../api/desk'
import { i18n, text } from '../../../text/desk'
import type { Tile } from '../../../shared/tile'

/** A basket's standing in words: progress first, then how it stands against its deadline. */
export function standingWords(row: Row): { main: string; time: string; detail: string; tone: string } {
  if (row.removed) return { main: text.board.removed, time: '', detail: '', tone: 'quiet' }
  if (row.waived) return { main: text.round.excused, time: '', detail: '', tone: 'quiet' }
  const main = text.progress[row.progress] ?? row.progress
  if (row.walkIn) return { main: `${text.round.walkIn}, ${main}`, time: '', detail: '', tone: 'quiet' }
  if (row.paused && row.progress !== 'COMPLETE' && row.progress !== 'CHECKED') return { main, time: '', detail: '', tone: 'quiet' }
  const past = row.timeliness === 'OVERDUE' || row.timeliness === 'LATE'
  return {
    main,
    time: text.timeliness[row.timeliness] ?? '',
    detail: past ? lateWords(row.pastDeadlineMinutes, row.pastDeadlineWorkingDays) : '',
    tone: row.timeliness === 'OVERDUE' ? 'rowan' : row.timeliness === 'DUE_SOON' || row.timeliness === 'IN_GRACE' || row.timeliness === 'LATE' ? 'acorn' : 'quiet',
  }
}

export function tileWords(item: Schemas['BoardItem'], tile: Tile): string {
  const t = text.round
  const files = tile.files === 0 ? '' : item.minFiles > 1 ? t.tileOf(tile.files, item.minFiles) : t.tileFiles(tile.files)
  return t.tile(item.title, text.standing[tile.standing] ?? '') + files + (tile.late ? `, ${t.late}` : '') + (tile.overdue ? `, ${t.overdue}` : '')
}

/** How long after the deadline, in whole days or in hours, and on which working day: two counts that cannot be taken for one another. */
function lateWords(minutes: number, workingDays: number): string {
  const t = text.round
  const hours = Math.floor(minutes / 60)
  const exact = hours >= 24 ? t.fullDays(Math.floor(hours / 24)) : t.hours(hours, minutes % 60)
  if (workingDays < 1) return t.by(exact)
  const ordinal = t.ordinals[workingDays] ?? t.ordinal[new Intl.PluralRules(i18n.global.locale.value, { type: 'ordinal' }).select(workingDays)]!(workingDays)
  return t.byOn(exact, ordinal)
}
