/** Times as people read them. A zone is always named when it is not the reader's own. */

const LANGUAGE = 'en-GB'

export function ownZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone
}

export function dayAndTime(instant: string, zone = officeZone): string {
  return format(instant, zone, { weekday: 'short', day: 'numeric', month: 'short', ...year(instant, zone), hour: '2-digit', minute: '2-digit' })
}

const formatters = new Map<string, Intl.DateTimeFormat>()

/** Making a formatter costs a hundred times what using it does. */
function formatter(options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = JSON.stringify(options)
  const known = formatters.get(key) ?? new Intl.DateTimeFormat(LANGUAGE, options)
  formatters.set(key, known)
  return known
}

let officeZone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** Has times of the desk told in the office's zone from now on, wherever the reader is. */
export function tellTimesIn(zone: string): void {
  officeZone = zone
}

/** A year is told where it is not this one. */
function year(instant: string, zone: string): Intl.DateTimeFormatOptions {
  const of = (date: Date) => formatter({ year: 'numeric', timeZone: zone }).format(date)
  return of(new Date(instant)) === of(new Date()) ? {} : { year: 'numeric' }
}

export function longDayAndTime(instant: string, zone = ownZone()): string {
  return format(instant, zone, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric', hour: '2-digit', minute: '2-digit' })
}

export function shortDay(instant: string, zone = officeZone): string {
  return format(instant, zone, { day: 'numeric', month: 'short', ...year(instant, zone) })
}

/** A deadline in words; a date alone means the end of that day. */
export function deadlineWords(instant: string, zone: string, dateOnly: boolean): string {
  return dateOnly
    ? format(instant, zone, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }) + ', end of the day'
    : longDayAndTime(instant, zone)
}

/** "London time" of "Europe/London". */
export function zoneWords(zone: string): string {
  return (zone.split('/').pop() ?? zone).replaceAll('_', ' ') + ' time'
}

function format(instant: string, zone: string, options: Intl.DateTimeFormatOptions): string {
  return formatter({ ...options, timeZone: zone }).format(new Date(instant))
}
