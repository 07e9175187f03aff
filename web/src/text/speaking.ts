import { ref } from 'vue'

/** The languages of the pages for strangers, each by its own name. */
export const LANGUAGES = { en: 'English', es: 'Español', fr: 'Français', de: 'Deutsch', pl: 'Polski', ar: 'العربية' } as const
export type Language = keyof typeof LANGUAGES

/** A message with a number in it, in the plural forms that CLDR has for the language. */
export type Forms = Partial<Record<Intl.LDMLPluralRule, string>> & { other: string }

/** Every text of a page in one language, by those of the reference. */
export type TextsOf<E> = { readonly [K in keyof E]: E[K] extends string ? string : Forms }

/** The language spoken now. */
export const language = ref<Language>('en')
let numbers = new Intl.NumberFormat('en-GB')
/** Which plural form a number takes, by CLDR as the browser has it. */
let plurals = new Intl.PluralRules('en')
let spoken: Record<string, string | Forms> = {}

/** The tag by which dates and numbers are written; English is that of the office's country. */
export function localeTag(): string {
  return language.value === 'en' ? 'en-GB' : language.value
}

/** Speaks a language from now on, with its texts. */
export function speakWith(tag: Language, texts: Record<string, string | Forms>): void {
  spoken = texts
  plurals = new Intl.PluralRules(tag)
  language.value = tag
  numbers = new Intl.NumberFormat(localeTag())
  document.documentElement.lang = tag
  document.documentElement.dir = tag === 'ar' ? 'rtl' : 'ltr'
}

/** Adds texts of the language spoken. */
export function speakAlso(texts: Record<string, string | Forms>): void {
  spoken = { ...spoken, ...texts }
}

type Value = string | number
type Said<T> = T extends string ? (T extends `${string}{${number}}${string}` ? (...values: Value[]) => string : string) : (...values: Value[]) => string

/** What is put into a text keeps its own direction (UAX #9, first strong isolate). */
const isolated = (value: string) => (language.value === 'ar' ? `\u2068${value}\u2069` : value)

/** A text with values in its places; the first number among them decides between plural forms. */
function say(said: string | Forms, values: Value[]): string {
  const count = values.find((value): value is number => typeof value === 'number') ?? 1
  const words = typeof said === 'string' ? said : (said[plurals.select(count)] ?? said.other)
  return words.replace(/\{(\d)\}/g, (_, place: string) => {
    const value = values[Number(place)]
    return typeof value === 'number' ? numbers.format(value) : isolated(value ?? '')
  })
}

/** Every text of a page in the language spoken: plain, or a function of what goes into its places. Kept by hand, for each kilobyte is waited for on a poor line: the core of vue-i18n weighs four. */
export function textOf<E extends object>(): { readonly [K in keyof E]: Said<E[K]> } {
  return new Proxy({} as { readonly [K in keyof E]: Said<E[K]> }, {
    get: (_, key: string) => {
      // Whatever shows a text shows it anew in another language.
      void language.value
      const said = spoken[key] ?? ''
      return typeof said !== 'string' || /\{\d\}/.test(said) ? (...values: Value[]) => say(said, values) : said
    },
  })
}
