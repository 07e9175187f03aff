import { language, localeTag, text } from '../text/sender'
import { ownZone } from '../shared/time'
import type { Page, PageItem } from './use-page'

/** Dates, sizes and kinds in the language of the page. */
const formatters = new Map<string, Intl.DateTimeFormat>()

function dated(instant: string, zone: string, options: Intl.DateTimeFormatOptions): string {
  const key = localeTag() + zone + JSON.stringify(options)
  const known = formatters.get(key) ?? new Intl.DateTimeFormat(localeTag(), { ...options, timeZone: zone })
  formatters.set(key, known)
  return known.format(new Date(instant))
}

const DAY = { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' } as const

export function longDayAndTime(instant: string, zone = ownZone()): string {
  return dated(instant, zone, { ...DAY, hour: '2-digit', minute: '2-digit' })
}

/** A deadline in words; a date alone means the end of that day. */
export function deadlineWords(page: Page): string {
  return page.dateOnly ? text.endOfDay(dated(page.deadline, page.zone, DAY)) : longDayAndTime(page.deadline, page.zone)
}

/** "London time" of "Europe/London". */
export function zoneWords(zone: string): string {
  return text.zone((zone.split('/').pop() ?? zone).replaceAll('_', ' '))
}

const UNITS = ['KiB', 'MiB', 'GiB', 'TiB']

/** A number of bytes in words, in binary units. */
export function sizeWords(bytes: number): string {
  if (bytes < 1024) return new Intl.NumberFormat(localeTag(), { style: 'unit', unit: 'byte', unitDisplay: 'long' }).format(bytes)
  let value = bytes
  let unit = -1
  while (value >= 1024 && unit < UNITS.length - 1) {
    value /= 1024
    unit++
  }
  const number = new Intl.NumberFormat(localeTag(), { maximumFractionDigits: value >= 100 ? 0 : 1 }).format(value)
  return `${number} ${UNITS[unit]}`
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
