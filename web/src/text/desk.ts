import { createI18n } from 'vue-i18n'
import { en } from './en/desk'
import { flat, said } from './said'

/** The languages of the desk. English is the reference: what another one lacks is said in English. */
export const i18n = createI18n({
  legacy: false,
  locale: 'en',
  fallbackLocale: 'en',
  messages: { en: flat(en) },
  // Messages stand flat under their whole path, since keys such as ";" or "." occur in them.
  messageResolver: (messages, path) => (messages as Record<string, string>)[path] ?? null,
})

/** Every text of the desk, in the language chosen. */
export const text = said(en, (path, values, count) => i18n.global.t(path, values, count))

/** A message of a list in which some have a number and some have not. */
export function withCount(message: string | ((count: number) => string) | undefined, count: number): string | undefined {
  return typeof message === 'function' ? message(count) : message
}
