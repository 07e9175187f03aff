import type { UploadFile } from 'element-plus'
import { desk } from '../../../api/desk'

/** A received file that can be picked. */
export interface PickChoice {
  key: string
  id: number
  name: string
  detail: string
}

const MOST_SHOWN = 20

/** Received files by a few letters. */
export async function findReceived(words: string): Promise<PickChoice[]> {
  const page = await desk.folder({ find: words, root: 1, path: '' } as Parameters<typeof desk.folder>[0])
  return page.rows.filter((row) => row.fileId !== null && !row.copy && !row.folder).slice(0, MOST_SHOWN)
    .map((row) => ({ key: String(row.fileId), id: row.fileId!, name: row.name, detail: [row.person, row.item].filter(Boolean).join(', ') }))
}

/** The library tells of files one by one; those chosen together are taken together. */
export function gatherChosen(take: (files: File[]) => void) {
  let gathered: File[] = []
  return (file: UploadFile) => {
    if (!file.raw) return
    if (gathered.length === 0) {
      setTimeout(() => {
        const files = gathered
        gathered = []
        take(files)
      }, 0)
    }
    gathered.push(file.raw)
  }
}
