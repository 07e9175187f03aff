import type { en } from './en'

/** A message with a number in it, in the plural forms that CLDR has for the language. */
export type Forms = Partial<Record<Intl.LDMLPluralRule, string>> & { other: string }

/** Every text of the page in one language. */
export type Texts = { readonly [K in keyof typeof en]: (typeof en)[K] extends string ? string : Forms }
