import { DAY, dated, longDayAndTime, placeOf } from '../light/said'
import { language, text } from '../text/sender'
import type { Page, PageItem } from './use-page'

export { longDayAndTime, sizeWords } from '../light/said'

/** A deadline in words; a date alone means the end of that day. */
export function deadlineWords(page: Page): string {
  return page.dateOnly ? text.endOfDay(dated(page.deadline, page.zone, DAY)) : longDayAndTime(page.deadline, page.zone)
}

/** "London time" of "Europe/London". */
export function zoneWords(zone: string): string {
  return text.zone(placeOf(zone))
}

export function timeLeftWords(seconds: number): string {
  return seconds < 60 ? text.seconds(seconds) : seconds < 3600 ? text.minutes(Math.ceil(seconds / 60)) : text.hours(Math.ceil(seconds / 3600))
}

const KINDS = {
  PDF: () => text.kindPDF,
  IMAGE: () => text.kindIMAGE,
  SPREADSHEET: () => text.kindSPREADSHEET,
  DOCUMENT: () => text.kindDOCUMENT,
  TRACK: () => text.kindTRACK,
  ARCHIVE: () => text.kindARCHIVE,
  SOUND_OR_FILM: () => text.kindSOUND_OR_FILM,
}

/** "pictures or PDF". */
export function kindsWords(item: PageItem): string {
  if (item.kinds.length === 0) return text.anyKind
  return new Intl.ListFormat(language.value, { type: 'disjunction' }).format(item.kinds.map((kind) => KINDS[kind]()))
}

export function countWords(item: PageItem): string {
  if (item.maxFiles === 1) return text.oneFile
  if (item.minFiles === item.maxFiles) return text.files(item.minFiles)
  return item.minFiles > 1 ? text.filesRange(item.minFiles, item.maxFiles) : text.filesUpTo(item.maxFiles)
}
