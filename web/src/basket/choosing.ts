import { text } from '../text/basket'
import { sizeWords } from '../shared/size'
import type { PageItem } from './use-page'

/** What can be said of a file before it is sent; the server checks all of it again. Empty when nothing is wrong. */
export function problemOf(file: File, item: PageItem): string {
  if (file.size === 0) return text.empty
  if (file.size > item.maxBytes) return text.tooLarge(sizeWords(file.size), sizeWords(item.maxBytes))
  const ending = file.name.includes('.') ? file.name.split('.').pop()!.toLowerCase() : ''
  if (item.endings.length > 0 && !item.endings.includes(ending)) return text.wrongKind(item.endings)
  return ''
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
