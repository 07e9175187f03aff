import { call } from './http'
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
export type Review = PanelFile['review']

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
  waive: (basket: number, itemId: number, waived: boolean) => call<void>('POST', `/api/baskets/${basket}/waiver`, { itemId, waived }),
  excuse: (basket: number, excused: boolean) => call<void>('POST', `/api/baskets/${basket}/excused`, { excused }),
  extend: (basket: number, date: string | null, reason: string) => call<void>('POST', `/api/baskets/${basket}/extension`, { date, reason }),
  review: (file: number, from: Review, to: Review, reason: string) => call<void>('POST', `/api/files/${file}/review`, { from, to, reason }),
  begin: (sheet: RoundSheet) => call<Draft>('POST', '/api/rounds', sheet),
  sheet: (id: number) => call<Draft>('GET', `/api/rounds/${id}/sheet`),
  save: (id: number, version: number, sheet: RoundSheet) => call<Draft>('PUT', `/api/rounds/${id}/sheet`, { version, sheet }),
  discard: (id: number) => call<void>('DELETE', `/api/rounds/${id}`),
  open: (id: number, version: number) => call<void>('POST', `/api/rounds/${id}/open`, { version }),
  close: (id: number) => call<void>('POST', `/api/rounds/${id}/close`),
  reopen: (id: number) => call<void>('POST', `/api/rounds/${id}/reopen`),
  readPeople: (text: string) => call<Schemas['ReadPeople']>('POST', '/api/people/read', { text }),
  patternExample: (typed: Schemas['Patterns']) => call<Schemas['PatternExample']>('POST', '/api/patterns/example', typed),
}
