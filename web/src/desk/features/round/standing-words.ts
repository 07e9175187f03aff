import type { Row, Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
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
    detail: past ? text.round.by(row.pastDeadlineMinutes, row.pastDeadlineWorkingDays) : '',
    tone: row.timeliness === 'OVERDUE' ? 'rowan' : row.timeliness === 'DUE_SOON' || row.timeliness === 'IN_GRACE' || row.timeliness === 'LATE' ? 'acorn' : 'quiet',
  }
}

export function tileWords(item: Schemas['BoardItem'], tile: Tile): string {
  return text.round.tile(item.title, text.standing[tile.standing] ?? '', tile.files, item.minFiles, tile.late, tile.overdue)
}
