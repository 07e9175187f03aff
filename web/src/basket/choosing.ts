import { text } from '../text/sender'
import { sizeWords } from './said'
import type { PageItem } from './use-page'

const endingOf = (name: string) => (name.includes('.') ? name.split('.').pop()!.toLowerCase() : '')

/** Whether a file is an archive that the server opens into its files, each of which it judges. */
export function opens(item: PageItem, name: string): boolean {
  return item.opensArchives && endingOf(name) === 'zip'
}

/** Whether an item takes files of this name. */
export function takes(item: PageItem, name: string): boolean {
  return item.endings.length === 0 || opens(item, name) || item.endings.includes(endingOf(name))
}

/** What can be said of a file before it is sent; the server checks all of it again. Empty when nothing is wrong. */
export function problemOf(file: { name: string; size: number }, item: PageItem): string {
  if (file.size === 0) return text.empty
  if (opens(item, file.name)) return ''
  if (file.size > item.maxBytes) return text.tooLarge(sizeWords(file.size), sizeWords(item.maxBytes))
  return takes(item, file.name) ? '' : text.wrongKind(item.endings.map((one) => '.' + one).join(', '))
}

const LEAST_LETTERS = 3
const wordsOf = (words: string) => new Set(words.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().split(/[^\p{L}\p{N}]+/u).filter((word) => word.length >= LEAST_LETTERS))

/**
 * The item that a file put on the page as a whole seems to belong to: one that takes its kind, first of all by words of its title in the file's name,
 * then one that is still missing and has room.
 *
 * @param items in the order of the page
 * @param room how many more files an item takes
 */
export function itemFor(name: string, items: PageItem[], room: (item: PageItem) => number): PageItem | undefined {
  const named = wordsOf(name)
  const points = (item: PageItem) =>
    (takes(item, name) ? 100 : 0) + (room(item) > 0 ? 50 : 0) + 20 * [...wordsOf(item.title)].filter((word) => [...named].some((one) => one.startsWith(word) || word.startsWith(one))).length + (item.required && !item.done ? 5 : 0) + (item.endings.length > 0 ? 2 : 0)
  return items.reduce<PageItem | undefined>((best, item) => (best && points(best) >= points(item) ? best : item), undefined)
}

/** All files of a drop, those inside dropped folders included. */
export async function filesOfDrop(transfer: DataTransfer): Promise<File[]> {
  const entries = Array.from(transfer.items, (item) => item.webkitGetAsEntry?.()).filter((entry) => entry != null)
  if (entries.length === 0) return Array.from(transfer.files)
  return (await Promise.all(entries.map(filesOfEntry))).flat()
}

async function filesOfEntry(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile) {
    return [await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject))]
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  const found: File[] = []
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject))
    if (some.length === 0) return found
    found.push(...(await Promise.all(some.map(filesOfEntry))).flat())
  }
}
