import { call, send } from './http'
import type { components } from './schema'

/** What the desk asks of the server, with the types of the API description. */
export type Schemas = components['schemas']
export type Row = Schemas['Row']
export type BoardView = Schemas['BoardView']
export type Panel = Schemas['Panel']
export type PanelFile = Schemas['PanelFile']
export type RoundSheet = Schemas['RoundSheet']
export type SheetItem = Schemas['SheetItem']
export type Draft = Schemas['Draft']
export type Contact = Schemas['Contact']
export type WorkCalendar = Schemas['WorkCalendar']
export type Verdict = Schemas['Line']['verdict']
export type Review = PanelFile['review']
export type Claim = NonNullable<PanelFile['claim']>
export type ListedLetter = Schemas['ListedLetter']
export type LetterKind = ListedLetter['kind']
export type LetterState = ListedLetter['state']

export const desk = {
  session: () => call<Schemas['Session']>('GET', '/api/session'),
  signIn: (email: string, password: string) => call<Schemas['Session']>('POST', '/api/session', { email, password }),
  signOut: () => call<void>('DELETE', '/api/session'),
  firstAccount: (body: { code: string; name: string; email: string; password: string }) => call<Schemas['Session']>('POST', '/api/first-account', body),
  today: () => call<Schemas['Today']>('GET', '/api/today'),
  seen: () => call<void>('POST', '/api/today/seen'),
  rounds: () => call<Schemas['ListedRound'][]>('GET', '/api/rounds'),
  board: (id: number) => call<BoardView>('GET', `/api/rounds/${id}/board`),
  row: (basket: number) => call<Row>('GET', `/api/baskets/${basket}/row`),
  panel: (basket: number) => call<Panel>('GET', `/api/baskets/${basket}`),
  basketLink: (basket: number) => call<Schemas['LinkView']>('GET', `/api/baskets/${basket}/link`),
  handedOver: (basket: number) => call<void>('POST', `/api/baskets/${basket}/handed-over`),
  openLink: (round: number) => call<Schemas['LinkView']>('GET', `/api/rounds/${round}/link`),
  act: (round: number, change: Partial<Schemas['BasketChange']> & Pick<Schemas['BasketChange'], 'kind' | 'baskets'>) => call<Schemas['BasketsChanged']>('POST', `/api/rounds/${round}/acts`, change),
  undoAct: (act: number) => call<Schemas['BasketsChanged']>('POST', `/api/acts/${act}/undo`),
  addLate: (round: number, people: Schemas['LatePerson'][], groups: string[]) => call<Schemas['BasketsChanged']>('POST', `/api/rounds/${round}/people`, { people, groups }),
  decideClaim: (submission: number, from: Claim, to: Claim) => call<void>('POST', `/api/claims/${submission}`, { from, to }),
  toCheck: (round: number) => call<Schemas['ToCheck']>('GET', `/api/rounds/${round}/to-check`),
  acceptAll: (basket: number) => call<Schemas['Accepted']>('POST', `/api/baskets/${basket}/accept-all`),
  unaccept: (files: number[]) => call<void>('POST', '/api/files/unaccept', { files }),
  search: (find: string) => call<Schemas['Hit'][]>('GET', `/api/search?find=${encodeURIComponent(find)}`),
  review: (file: number, from: Review, to: Review, reason: string) => call<void>('POST', `/api/files/${file}/review`, { from, to, reason }),
  begin: (sheet: RoundSheet) => call<Draft>('POST', '/api/rounds', sheet),
  sheet: (id: number) => call<Draft>('GET', `/api/rounds/${id}/sheet`),
  save: (id: number, version: number, sheet: RoundSheet) => call<Draft>('PUT', `/api/rounds/${id}/sheet`, { version, sheet }),
  discard: (id: number) => call<void>('DELETE', `/api/rounds/${id}`),
  opening: (id: number) => call<Schemas['OpeningPreview']>('GET', `/api/rounds/${id}/opening`),
  open: (id: number, version: number) => call<void>('POST', `/api/rounds/${id}/open`, { version }),
  copyRound: (id: number) => call<Draft>('POST', `/api/rounds/${id}/copy`),
  changing: (id: number) => call<Schemas['Changing']>('GET', `/api/rounds/${id}/change`),
  previewChange: (id: number, version: number, sheet: RoundSheet) => call<Schemas['ChangePreview']>('POST', `/api/rounds/${id}/change/preview`, { version, sheet }),
  applyChange: (id: number, version: number, sheet: RoundSheet) => call<void>('POST', `/api/rounds/${id}/change`, { version, sheet }),
  templates: () => call<Schemas['KeptTemplate'][]>('GET', '/api/templates'),
  keepTemplate: (kind: Schemas['KeptTemplate']['kind'], name: string, sheet: RoundSheet, replace: boolean) => call<Schemas['KeptTemplate']>('POST', '/api/templates', { kind, name, sheet, replace }),
  discardTemplate: (id: number) => call<void>('DELETE', `/api/templates/${id}`),
  series: () => call<Schemas['ListedSeries'][]>('GET', '/api/series'),
  previewSeries: (terms: Schemas['SeriesTerms']) => call<Schemas['SeriesPreview']>('POST', '/api/series/preview', { calendarId: null, terms }),
  beginSeries: (roundId: number, terms: Schemas['SeriesTerms']) => call<Schemas['ListedSeries']>('POST', '/api/series', { roundId, terms }),
  changeSeries: (id: number, version: number, terms: Schemas['SeriesTerms']) => call<Schemas['ListedSeries']>('PUT', `/api/series/${id}`, { version, terms }),
  pauseSeries: (id: number, paused: boolean) => call<Schemas['ListedSeries']>('POST', `/api/series/${id}/pause`, { paused }),
  endSeries: (id: number) => call<void>('DELETE', `/api/series/${id}`),
  keepForm: (file: File) => send<Schemas['KeptForm']>(`/api/forms?name=${encodeURIComponent(file.name)}`, file),
  calendars: () => call<WorkCalendar[]>('GET', '/api/calendars'),
  addCalendar: (form: Schemas['CalendarForm']) => call<WorkCalendar>('POST', '/api/calendars', form),
  changeCalendar: (id: number, form: Schemas['CalendarForm']) => call<WorkCalendar>('PUT', `/api/calendars/${id}`, form),
  defaultCalendar: (id: number) => call<WorkCalendar>('POST', `/api/calendars/${id}/default`),
  discardCalendar: (id: number) => call<void>('DELETE', `/api/calendars/${id}`),
  closeDay: (id: number, day: string | null, name: string) => call<WorkCalendar>('POST', `/api/calendars/${id}/day`, { day, name }),
  closeDays: (id: number, days: Schemas['ClosingDay'][]) => call<WorkCalendar>('POST', `/api/calendars/${id}/days`, { days }),
  reopenDays: (id: number, days: string[]) => call<WorkCalendar>('DELETE', `/api/calendars/${id}/days?${days.map((day) => `day=${day}`).join('&')}`),
  readCalendar: (file: File) => send<Schemas['ReadCalendarFile']>('/api/calendars/read', file),
  countries: () => call<Schemas['Place'][]>('GET', '/api/holidays/countries'),
  regions: (country: string) => call<Schemas['Place'][]>('GET', `/api/holidays/${country}/regions`),
  holidays: (country: string, region: string, year: number) => call<Schemas['ClosingDay'][]>('GET', `/api/holidays/${country}?region=${encodeURIComponent(region)}&year=${year}`),
  feed: () => call<Schemas['Feed']>('GET', '/api/feed'),
  makeFeed: () => call<Schemas['Feed']>('POST', '/api/feed'),
  endFeed: () => call<void>('DELETE', '/api/feed'),
  contacts: (find: string, group: string, provisional: boolean, from: number) =>
    call<Schemas['ContactList']>('GET', `/api/contacts?find=${encodeURIComponent(find)}&group=${encodeURIComponent(group)}&provisional=${provisional}&from=${from}`),
  suggest: (find: string) => call<Schemas['Suggested']>('GET', `/api/contacts/suggest?find=${encodeURIComponent(find)}`),
  groups: () => call<Schemas['GroupSize'][]>('GET', '/api/groups'),
  removeGroup: (name: string) => call<void>('DELETE', `/api/groups/${encodeURIComponent(name)}`),
  regroup: (group: string, contacts: number[], within: boolean) => call<unknown>('POST', '/api/groups/members', { group, contacts, in: within }),
  person: (id: number) => call<Schemas['PersonPage']>('GET', `/api/contacts/${id}`),
  addContact: (form: Schemas['ContactForm']) => call<Schemas['Saved']>('POST', '/api/contacts', form),
  changeContact: (id: number, form: Schemas['ContactForm']) => call<Schemas['Saved']>('PUT', `/api/contacts/${id}`, form),
  discardContact: (id: number) => call<Schemas['ContactsChanged']>('POST', `/api/contacts/${id}/discard`),
  alike: (id: number) => call<Schemas['Alike'][]>('GET', `/api/contacts/${id}/alike`),
  twice: () => call<Schemas['Pair'][]>('GET', '/api/contacts/twice'),
  merge: (keep: Contact, gone: Contact) =>
    call<Schemas['ContactsChanged']>('POST', '/api/contacts/merge', { keep: keep.id, gone: gone.id, keepVersion: keep.version, goneVersion: gone.version }),
  contactActs: () => call<Schemas['ContactAct'][]>('GET', '/api/contact-acts'),
  undoContactAct: (act: number) => call<Schemas['Undone']>('POST', `/api/contact-acts/${act}/undo`),
  stageImport: (content: Blob, charset: string, delimiter: string) => send<Schemas['Staged']>(`/api/contacts/import?charset=${encodeURIComponent(charset)}&delimiter=${encodeURIComponent(delimiter)}`, content),
  previewImport: (id: string, mapping: Schemas['Mapping'], verdict: Verdict, from: number) => call<Schemas['ImportPreview']>('POST', `/api/contacts/import/${id}/preview`, { mapping, verdict, from }),
  applyImport: (id: string, mapping: Schemas['Mapping'], source: string) => call<void>('POST', `/api/contacts/import/${id}/apply`, { mapping, source }),
  importProgress: (id: string) => call<Schemas['ImportProgress']>('GET', `/api/contacts/import/${id}`),
  letters: (state: LetterState | undefined, find: string, round: number | undefined, before: number | undefined) =>
    call<Schemas['LetterPage']>('GET', `/api/letters?find=${encodeURIComponent(find)}${state ? `&state=${state}` : ''}${round ? `&round=${round}` : ''}${before ? `&before=${before}` : ''}`),
  letter: (id: number) => call<Schemas['LetterInFull']>('GET', `/api/letters/${id}`),
  stopLetter: (id: number) => call<void>('POST', `/api/letters/${id}/stop`),
  letterAgain: (id: number) => call<void>('POST', `/api/letters/${id}/again`),
  stopLetters: (batch: number) => call<Schemas['Stopped']>('POST', `/api/letters/batches/${batch}/stop`),
  lettersTo: (contact: number) => call<ListedLetter[]>('GET', `/api/contacts/${contact}/letters`),
  lettersOf: (basket: number) => call<Schemas['BasketLetters']>('GET', `/api/baskets/${basket}/letters`),
  ticks: (round: number) => call<Schemas['LetterTick'][]>('GET', `/api/rounds/${round}/letters`),
  previewLetters: (round: number, baskets: number[]) => call<Schemas['Sending']>('POST', `/api/rounds/${round}/letters/preview`, { baskets }),
  sendLetters: (round: number, baskets: number[]) => call<Schemas['Sending']>('POST', `/api/rounds/${round}/letters`, { baskets }),
  comingLetters: () => call<Schemas['ComingLetters'][]>('GET', '/api/letters/coming'),
  letterExample: (round: number) => call<Schemas['LetterLook']>('GET', `/api/rounds/${round}/letter-example`),
  post: () => call<Schemas['PostView']>('GET', '/api/post'),
  testPost: () => call<void>('POST', '/api/post/test'),
  letterTexts: () => call<Schemas['KeptText'][]>('GET', '/api/letter-texts'),
  keepLetterText: (kind: LetterKind, version: number, subject: string, body: string) => call<Schemas['KeptText']>('PUT', `/api/letter-texts/${kind}`, { subject, body, version }),
  resetLetterText: (kind: LetterKind) => call<Schemas['KeptText']>('DELETE', `/api/letter-texts/${kind}`),
  letterTextExample: (subject: string, body: string) => call<Schemas['LetterLook']>('POST', '/api/letter-texts/example', { subject, body, version: null }),
  close: (id: number) => call<void>('POST', `/api/rounds/${id}/close`),
  reopen: (id: number) => call<void>('POST', `/api/rounds/${id}/reopen`),
  readPeople: (text: string) => call<Schemas['ReadPeople']>('POST', '/api/people/read', { text }),
  patternExample: (typed: Schemas['Patterns']) => call<Schemas['PatternExample']>('POST', '/api/patterns/example', typed),
}
