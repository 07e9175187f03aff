import type { ListedLink } from '../../../api/desk'
import { sizeWords } from '../../../shared/size'
import { dayAndTime, shortDay } from '../../../shared/time'
import { text } from '../../../text/desk'

/** When a link ends, in the round's zone. */
export function endWords(link: ListedLink): string {
  return link.ownEnd ? dayAndTime(link.end, link.zone) : text.links.whileGathering(shortDay(link.end, link.zone))
}

/** The terms of a link as one sentence. */
export function termsWords(link: ListedLink): string {
  const t = text.links
  const begins = link.beginsAt ? t.from(dayAndTime(link.beginsAt, link.zone)) : t.atOnce
  const ends = link.ownEnd ? t.untilDate(dayAndTime(link.end, link.zone)) : t.untilGathering(dayAndTime(link.end, link.zone))
  const limits = [
    link.useLimit !== null && t.limits.uses(link.useLimit),
    link.fileLimit !== null && t.limits.files(link.fileLimit),
    link.fileBytes !== null && t.limits.fileBytes(sizeWords(link.fileBytes)),
    link.totalBytes !== null && t.limits.totalBytes(sizeWords(link.totalBytes)),
  ].filter((one) => one !== false)
  return [`${begins}, ${ends}`, limits.length > 0 ? limits.join(', ') : t.noLimits, ...(link.passcode ? [t.withPasscode] : [])].join('; ')
}

/** An instant as the date and the time of the clock in a zone, for fields. */
export function localParts(instant: string | null, zone: string): { date: string; time: string } {
  if (!instant) return { date: '', time: '' }
  const [date, time] = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' }).format(new Date(instant)).split(' ')
  return { date: date!, time: time! }
}
