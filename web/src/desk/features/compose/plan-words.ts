import type { RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'

type Letters = RoundSheet['letters']
type Step = Letters['steps'][number]

/** When reminders go, in one sentence: those before the deadline, those after it, what comes again, and what is said of returned papers. */
export function planWords(letters: Letters): string {
  const t = text.post.planSentence
  if (letters.steps.length === 0) return `${text.post.noSteps} ${returnWords(letters)}`
  const sorted = [...letters.steps].sort((a, b) => a.days - b.days)
  const before = sorted.filter((step) => step.days <= 0 && !step.lastCall)
  const after = sorted.filter((step) => step.days > 0 && !step.lastCall)
  const last = sorted.filter((step) => step.lastCall)
  const parts = [
    before.length > 0 ? t.before(list(before)) : '',
    after.length > 0 ? t.after(list(after)) : '',
    ...last.map((step) => (step.days > 0 ? t.lastCallAfter(list([step])) : t.lastCalls(list([step])))),
    letters.repeatTimes > 0 ? t.repeat(letters.repeatTimes, letters.repeatEvery) : '',
  ].filter(Boolean)
  return `${t.begin} ${parts.join('; ')}. ${returnWords(letters)}`
}

function list(steps: Step[]): string {
  const t = text.post.planSentence
  const words = steps.map((step) => {
    const days = Math.abs(step.days)
    return days === 0 ? t.sameDay : step.unit === 'WORKING' ? t.workingDays(days) : t.days(days)
  })
  return words.length > 1 ? t.and(words.slice(0, -1).join(', '), words.at(-1)!) : words[0]!
}

function returnWords(letters: Letters): string {
  const t = text.post.planSentence
  return [letters.tellReturned ? t.returns : t.noReturns, letters.tellExtended ? t.extended : t.notExtended, letters.tellReceived && t.received, letters.thank && t.thanked].filter(Boolean).join(' ')
}
