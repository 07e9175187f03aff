import type { Upload } from 'tus-js-client'
import type { PageItem } from './use-page'

/** In state `pick` the browser could not keep the file, and it has to be picked again. */
export type FileState = 'chosen' | 'pick' | 'waiting' | 'sending' | 'there' | 'failed'

/** A file chosen for an item. */
export interface ChosenFile {
  /** Its name in the browser's own storage. */
  id: string
  item: PageItem
  name: string
  size: number
  lastModified: number
  /** Tells its content from others; see printOf. */
  print: string
  /** Stands for this sending of it, so that one whose answer was lost is not received twice. */
  once: string
  /** Sent by itself from now on: the server had no place for several together. */
  alone?: boolean
  file?: File
  state: FileState
  problem: string
  sent: number
  upload?: Upload
}
