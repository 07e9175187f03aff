/** Times as people read them. A zone is always named when it is not the reader's own. */

const LANGUAGE = 'en-GB'

export function ownZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone
}

export function dayAndTime(instant: string, zone = ownZone()): string {
  return format(instant, zone, { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
}

export function longDayAndTime(instant: string, zone = ownZone()): string {
  return format(instant, zone, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric', hour: '2-digit', minute: '2-digit' })
}

export function shortDay(instant: string, zone = ownZone()): string {
  return format(instant, zone, { day: 'numeric', month: 'short' })
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
  return new Intl.DateTimeFormat(LANGUAGE, { ...options, timeZone: zone }).format(new Date(instant))
}
