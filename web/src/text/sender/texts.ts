import type { TextsOf } from '../speaking'
import type { en } from './en'
import type { later } from './later/en'

/** The texts with which the page begins, in one language. */
export type Texts = TextsOf<typeof en>
/** The texts of its parts that come later. */
export type LaterTexts = TextsOf<typeof later>
