import { createCoreContext, translate } from '@intlify/core-base'
import { ref } from 'vue'

/** The languages of the pages for strangers, each by its own name. */
export const LANGUAGES = { en: 'English', es: 'Español', fr: 'Français', de: 'Deutsch', pl: 'Polski', ar: 'العربية' } as const
export type Language = keyof typeof LANGUAGES

/** A message with a number in it, in the plural forms that CLDR has for the language. */
export type Forms = Partial<Record<Intl.LDMLPluralRule, string>> & { other: string }

/** Every text of a page in one language, by those of the reference. */
export type TextsOf<E> = { readonly [K in keyof E]: E[K] extends string ? string : Forms }

const FORMS: Intl.LDMLPluralRule[] = ['zero', 'one', 'two', 'few', 'many', 'other']

/** The plural forms that a language has (CLDR, by the browser's Intl), in one order. */
function formsOf(tag: string): Intl.LDMLPluralRule[] {
  const known = new Intl.PluralRules(tag).resolvedOptions().pluralCategories
  return FORMS.filter((form) => known.includes(form))
}

/** Which of the forms a number takes; the library numbers them. */
function rule(tag: string) {
  const forms = formsOf(tag)
  const rules = new Intl.PluralRules(tag)
  return (count: number) => forms.indexOf(rules.select(count))
}

interface Context {
  list: (n: number) => unknown
  plural: (forms: string[]) => string
}
type Message = (context: Context) => string

/** A message as the library's small build takes it: a function, since it reads no text of its own. */
function message(said: string | Forms, forms: Intl.LDMLPluralRule[]): Message {
  if (typeof said !== 'string') {
    const each = forms.map((form) => message(said[form] ?? said.other, forms))
    return (context) => context.plural(each.map((one) => one(context)))
  }
  const parts = said.split(/\{(\d)\}/)
  return ({ list }) => parts.map((part, n) => (n % 2 ? String(list(Number(part))) : part)).join('')
}

/** The core of vue-i18n by itself: its plugin would bring all of Vue along, used or not. */
const core = createCoreContext({
  locale: 'en',
  fallbackLocale: 'en',
  messages: {} as Record<string, Record<string, Message>>,
  pluralRules: Object.fromEntries(Object.keys(LANGUAGES).map((tag) => [tag, rule(tag)])),
  missingWarn: false,
  fallbackWarn: false,
})

/** The language spoken now. */
export const language = ref<Language>('en')
let numbers = new Intl.NumberFormat('en-GB')
let withPlaces = new Set<string>()

/** The tag by which dates and numbers are written; English is that of the office's country. */
export function localeTag(): string {
  return language.value === 'en' ? 'en-GB' : language.value
}

/** Speaks a language from now on, with its texts. */
export function speakWith(tag: Language, texts: Record<string, string | Forms>): void {
  const forms = formsOf(tag)
  const all = Object.entries(texts)
  core.messages = { [tag]: Object.fromEntries(all.map(([key, one]) => [key, message(one, forms)])) }
  core.locale = core.fallbackLocale = tag
  withPlaces = new Set(all.filter(([, one]) => typeof one !== 'string' || /\{\d\}/.test(one)).map(([key]) => key))
  language.value = tag
  numbers = new Intl.NumberFormat(localeTag())
  document.documentElement.lang = tag
  document.documentElement.dir = tag === 'ar' ? 'rtl' : 'ltr'
}

type Value = string | number
type Said<T> = T extends string ? (T extends `${string}{${number}}${string}` ? (...values: Value[]) => string : string) : (...values: Value[]) => string

/** What is put into a text keeps its own direction (UAX #9, first strong isolate). */
const isolated = (value: string) => (language.value === 'ar' ? `\u2068${value}\u2069` : value)

function say(key: string, values: Value[]): string {
  const count = values.find((value): value is number => typeof value === 'number') ?? 1
  return String(translate(core, key, values.map((value) => (typeof value === 'number' ? numbers.format(value) : isolated(value))), count))
}

/** Every text of a page in the language spoken: plain, or a function of what goes into its places. */
export function textOf<E extends object>(): { readonly [K in keyof E]: Said<E[K]> } {
  return new Proxy({} as { readonly [K in keyof E]: Said<E[K]> }, {
    get: (_, key: string) => {
      // Whatever shows a text shows it anew in another language; the library's core by itself tells nobody.
      void language.value
      return withPlaces.has(key) ? (...values: Value[]) => say(key, values) : say(key, [])
    },
  })
}
