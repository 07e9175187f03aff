import { speakWith, textOf, type Language } from '../speaking'
import type { en } from './en'
import type { Texts } from './texts'

/** Only the language that is spoken is loaded; the first one comes with the page. */
const loaders: Record<Language, () => Promise<Texts>> = {
  en: async () => (await import('./en')).en,
  es: async () => (await import('./es')).texts,
  fr: async () => (await import('./fr')).texts,
  de: async () => (await import('./de')).texts,
  pl: async () => (await import('./pl')).texts,
  ar: async () => (await import('./ar')).texts,
}

/** Speaks a language from now on, with its texts at hand or loaded. */
export async function speak(tag: Language, texts?: Texts): Promise<void> {
  speakWith(tag, texts ?? (await loaders[tag]()))
}

/** Every text of the page. */
export const text = textOf<typeof en>()

export { LANGUAGES, language, localeTag, type Language } from '../speaking'
