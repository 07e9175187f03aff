import { LANGUAGES, type Language } from '../text/speaking'

const NAME = 'oak-basket language'

/** The language that was chosen in this browser, if any. */
export const keptLanguage = {
  find(): Language | undefined {
    try {
      const kept = localStorage.getItem(NAME)
      return kept !== null && kept in LANGUAGES ? (kept as Language) : undefined
    } catch {
      return undefined
    }
  },
  keep(language: Language) {
    try {
      localStorage.setItem(NAME, language)
    } catch {
      // A browser that keeps nothing asks again next time.
    }
  },
}
