import type { TextsOf } from '../speaking'
import type { en } from './en'

/** Every text of the page in one language. */
export type Texts = TextsOf<typeof en>
