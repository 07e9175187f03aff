import type { Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'

const t = text.filing
export type Rule = Schemas['FilingRule']
export type Condition = Schemas['Condition']
export type Placement = Schemas['Placement']
export type Root = Schemas['RootView']

/** What can be asked about each subject; the core refuses anything else. */
export const TESTS: Record<Condition['subject'], Condition['test'][]> = {
  ...Object.fromEntries((['ROUND', 'ITEM', 'GROUP', 'PERSON', 'EMAIL', 'ORGANISATION', 'REFERENCE', 'NAME'] as const).map((one) => [one, ['IS', 'IS_NOT', 'CONTAINS', 'CONTAINS_NOT', 'BEGINS', 'ENDS', 'MATCHES']])),
  KIND: ['IS', 'IS_NOT'], IDENTITY: ['IS', 'IS_NOT'], SOURCE: ['IS', 'IS_NOT'], LATE: ['IS'], SIZE: ['AT_LEAST', 'AT_MOST'],
} as Record<Condition['subject'], Condition['test'][]>

export const emptyRule = (): Rule => ({ name: '', active: true, join: 'ALL', conditions: [{ subject: 'ITEM', test: 'IS', value: '' }], also: false, place: { root: 0, folder: '', name: '' }, tray: false, copies: [], mark: '', tell: '' })

export function conditionWords(one: Condition): string {
  const value = t.choices[one.subject]?.[one.value] ?? one.value
  return `${t.subjects[one.subject]} ${t.tests[one.test]} ${value || '…'}`
}

function placeWords(place: Placement, roots: Root[]): string {
  const root = roots.find((one) => one.id === place.root)
  return root && place.root > 1 ? t.inRoot(place.folder || t.asRound, root.name) : place.folder || t.asRound
}

/** What a rule does, part by part. */
export function effectWords(rule: Rule, roots: Root[]): string[] {
  const words: string[] = []
  if (rule.tray) words.push(t.tray)
  if (rule.place && (rule.place.folder || rule.place.root > 1)) words.push(t.into(placeWords(rule.place, roots)))
  if (rule.place?.name) words.push(t.named(rule.place.name))
  rule.copies.forEach((copy) => words.push(t.copyTo(placeWords(copy, roots))))
  if (rule.mark) words.push(t.marked(rule.mark))
  if (rule.tell) words.push(t.tells(rule.tell))
  return words
}

/** When a rule holds. */
export function whenWords(rule: Rule): string {
  return rule.conditions.length === 0 ? t.always : t.when(rule.conditions.map(conditionWords).join(rule.join === 'ANY' ? t.or : t.and))
}
