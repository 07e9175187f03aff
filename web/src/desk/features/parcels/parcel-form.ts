import type { ParcelInFull, ParcelSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import { localParts } from '../links/link-words'

/** A parcel as it is typed. */
export interface ParcelForm {
  title: string
  message: string
  ends: 'days' | 'until'
  days: number | undefined
  beginsOn: string
  endsOn: string
  endsAt: string
  passcode: string
  passcodeAway: boolean
  mostPickUps: number | undefined
  keptDays: number | undefined
  name: string
  reminders: { before: number | undefined; unit: string; at: string }[]
  people: { name: string; email: string }[]
  open: boolean
  byLetter: boolean
}

/** What the server has, as it is typed. */
export function formOf(full: ParcelInFull): ParcelForm {
  const ends = localParts(full.typedEndsAt, full.zone)
  return {
    title: full.parcel.title,
    message: full.message,
    ends: full.days === null ? 'until' : 'days',
    days: full.days ?? 14,
    beginsOn: localParts(full.parcel.beginsAt, full.zone).date,
    endsOn: ends.date,
    endsAt: ends.time === '23:59' ? '' : ends.time,
    passcode: '',
    passcodeAway: false,
    mostPickUps: full.mostPickUps ?? undefined,
    keptDays: full.keptDays,
    name: full.name,
    reminders: full.reminders.map((step) => ({ before: -step.days, unit: step.unit, at: step.at.slice(0, 5) })),
    people: full.people.map((person) => ({ ...person })),
    open: full.parcel.open,
    byLetter: full.byLetter,
  }
}

/** What is typed, as the server takes it. */
export function sheetOf(form: ParcelForm, version: number, whenReady: boolean): ParcelSheet {
  return {
    version,
    title: form.title,
    message: form.message,
    days: form.ends === 'days' ? (form.days ?? 0) : null,
    beginsOn: form.beginsOn,
    beginsAt: '',
    endsOn: form.ends === 'until' ? form.endsOn : '',
    endsAt: form.ends === 'until' ? form.endsAt : '',
    passcode: form.passcodeAway ? '' : form.passcode ? form.passcode : null,
    mostPickUps: form.mostPickUps ?? null,
    keptDays: form.keptDays ?? 0,
    name: form.name,
    reminders: form.reminders.map((step) => ({ days: step.before === undefined ? 1 : -step.before, unit: step.unit as 'CALENDAR' | 'WORKING', at: step.at })),
    people: form.people,
    open: form.open,
    byLetter: form.byLetter,
    whenReady,
  }
}

/** What each field of a parcel is called. */
export const parcelNames = () => {
  const t = text.parcels
  return {
    title: t.name, message: t.message, ends: t.until, days: t.days, beginsOn: t.beginsOn, endsOn: t.endsOn, endsAt: t.endsAt, passcode: t.passcode, passcodeAway: t.passcode, mostPickUps: t.limited, keptDays: t.kept, name: t.readable, reminders: t.reminders,
    people: t.people, open: t.openLink, byLetter: t.letter,
  }
}
