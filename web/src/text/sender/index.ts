import { language, speakAlso, speakWith, textOf, type Language } from '../speaking'
import type { en } from './en'
import type { later } from './later/en'
import type { LaterTexts, Texts } from './texts'

/** Only the language that is spoken is loaded; the first one comes with the page. */
const loaders: Record<Language, () => Promise<Texts>> = {
  en: async () => (await import('./en')).en,
  es: async () => (await import('./es')).texts,
  fr: async () => (await import('./fr')).texts,
  de: async () => (await import('./de')).texts,
  pl: async () => (await import('./pl')).texts,
  ar: async () => (await import('./ar')).texts,
}

/** What the page does not begin with is not waited for. */
const laterLoaders: Record<Language, () => Promise<LaterTexts>> = {
  en: async () => (await import('./later/en')).later,
  es: async () => (await import('./later/es')).later,
  fr: async () => (await import('./later/fr')).later,
  de: async () => (await import('./later/de')).later,
  pl: async () => (await import('./later/pl')).later,
  ar: async () => (await import('./later/ar')).later,
}

/** Whether a part is there, or on its way, that needs the later texts. */
let laterToo = false

/** Speaks a language from now on, with its texts at hand or loaded. */
export async function speak(tag: Language, texts?: Texts): Promise<void> {
  const first = texts ?? (await loaders[tag]())
  const rest = laterToo ? await laterLoaders[tag]() : {}
  speakWith(tag, { ...first, ...rest })
}

/** Comes before a part of the page that needs the later texts. */
export async function speakLater(): Promise<void> {
  laterToo = true
  const tag = language.value
  const rest = await laterLoaders[tag]()
  // Whoever chose another language meanwhile has its texts already.
  if (language.value === tag) speakAlso(rest)
}

/** Every text of the page; those of its later parts are there once {@link speakLater} has ended. */
export const text = textOf<typeof en & typeof later>()

export { LANGUAGES, language, localeTag, type Language } from '../speaking'
