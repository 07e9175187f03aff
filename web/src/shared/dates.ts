/** How the office writes a day: the day before the month, the month as a word, so that nobody can take one for the other. */
export const DATE_FORMAT = 'D MMM YYYY'

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const NAMES = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/**
 * The ISO 8601 date somebody typed: 2026-12-09, 9.12.2026, 9/12/26, 9 Dec, 9 December 2026, Dec 9. A day without a year is the next such day.
 *
 * @returns undefined where it is no day
 */
export function readDate(typed: string, today = new Date()): string | undefined {
  const words = typed.trim().toLowerCase().replace(/(\d)(st|nd|rd|th)\b/g, '$1')
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(words)
  if (iso) return day(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const [first, second, third] = words.split(/[\s.,/-]+/).filter(Boolean)
  if (!first || !second) return undefined
  const [dayOf, monthOf] = /^\d+$/.test(first) ? [first, second] : [second, first]
  const month = /^\d+$/.test(monthOf) ? Number(monthOf) : MONTHS.indexOf(monthOf.slice(0, 3)) + 1
  if (third) return day(third.length <= 2 ? 2000 + Number(third) : Number(third), month, Number(dayOf))
  const near = day(today.getFullYear(), month, Number(dayOf))
  return near && near < isoOf(today) ? day(today.getFullYear() + 1, month, Number(dayOf)) : near
}

/** An ISO 8601 date as the office writes it. */
export function writtenDate(iso: string): string {
  const [year, month, date] = iso.split('-').map(Number)
  return `${date} ${NAMES[month! - 1]} ${year}`
}

/**
 * The time somebody typed: 8:30, 0830, 8.30, 5 pm.
 *
 * @returns hours and minutes of 24, or undefined where it is no time
 */
export function readTime(typed: string): string | undefined {
  const parts = /^(\d{1,2})[:.h]?(\d{2})?\s*([ap]m)?$/i.exec(typed.trim())
  if (!parts) return undefined
  const half = parts[3]?.toLowerCase()
  const hour = Number(parts[1]) % (half ? 12 : 100) + (half === 'pm' ? 12 : 0)
  const minute = Number(parts[2] ?? 0)
  return hour < 24 && minute < 60 ? `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}` : undefined
}

function day(year: number, month: number, date: number): string | undefined {
  const there = new Date(Date.UTC(year, month - 1, date))
  return there.getUTCFullYear() === year && there.getUTCMonth() === month - 1 && there.getUTCDate() === date ? there.toISOString().slice(0, 10) : undefined
}

function isoOf(date: Date): string {
  return `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`
}
