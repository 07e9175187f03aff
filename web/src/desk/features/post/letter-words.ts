import type { ListedLetter } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'

const t = text.post

/** Where a letter is, and why it did not go or not yet. */
export function stateWords(letter: ListedLetter): string {
  if (letter.state === 'WAITING') return letter.tries > 0 ? `${t.deferred(dayAndTime(letter.at))}: ${letter.trouble}` : `${t.goes(dayAndTime(letter.at))}${letter.trouble ? `, ${letter.trouble}` : ''}`
  const why = (t.reasons[letter.trouble] ?? letter.trouble)
  return `${t.states[letter.state]}${letter.state === 'SENDING' ? '' : ` ${dayAndTime(letter.at)}`}${why ? `: ${why}` : ''}`
}

/** Numbers of letters by kind, in words. */
export function kindWords(kinds: Record<string, number>): string {
  return Object.entries(kinds).map(([kind, n]) => t.several[kind]!(n)).join(', ')
}

/** What a refusal means in plain words, by its enhanced status code (RFC 3463); empty where it has none that we know. */
export function refusalWords(trouble: string): string {
  const code = /\b[45]\.(\d{1,3}\.\d{1,3})\b/.exec(trouble)
  return (code && t.refusals[code[1]!]) ?? ''
}
