import { localeTag } from '../text/speaking'
import { ownZone } from '../shared/time'

/** Dates and sizes in the language of the page. */
const formatters = new Map<string, Intl.DateTimeFormat>()

export function dated(instant: string, zone: string, options: Intl.DateTimeFormatOptions): string {
  const key = localeTag() + zone + JSON.stringify(options)
  const known = formatters.get(key) ?? new Intl.DateTimeFormat(localeTag(), { ...options, timeZone: zone })
  formatters.set(key, known)
  return known.format(new Date(instant))
}

export const DAY = { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' } as const

export function longDayAndTime(instant: string, zone = ownZone()): string {
  return dated(instant, zone, { ...DAY, hour: '2-digit', minute: '2-digit' })
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

/** "London time" of "Europe/London" needs the place alone. */
export function placeOf(zone: string): string {
  return (zone.split('/').pop() ?? zone).replaceAll('_', ' ')
}
