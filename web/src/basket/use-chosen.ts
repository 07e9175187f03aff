import { computed, reactive, toRaw } from 'vue'
import { text } from '../text/sender'
import type { ChosenFile } from './chosen-file'
import { itemFor, problemOf } from './choosing'
import { keptFiles, printOf, type KeptFile } from './kept-files'
import type { PageItem } from './use-page'

const MONTH_MILLISECONDS = 30 * 24 * 60 * 60 * 1000

/** The files chosen, as they stand on the page and in the browser's own storage. */
export function useChosen(token: string, keeps: boolean, until: () => string | null | undefined) {
  const chosen = reactive<ChosenFile[]>([])
  const notices = reactive<Record<number, string>>({})
  const kept = keptFiles(token)
  const bytes = computed(() => chosen.reduce((sum, one) => sum + one.size, 0))
  const roomOf = (item: PageItem) => Math.max(0, item.maxFiles - item.arrived)
  const ofItem = (item: PageItem) => chosen.filter((one) => one.item.number === item.number)

  function remember(one: ChosenFile) {
    if (!keeps) return
    const end = until()
    const file: Omit<KeptFile, 'token'> = {
      id: one.id, item: one.item.number, name: one.name, size: one.size, lastModified: one.lastModified, print: one.print, there: one.state === 'there',
      content: one.state === 'there' ? undefined : toRaw(one.file), until: end ? Date.parse(end) : Date.now() + MONTH_MILLISECONDS,
    }
    void kept.keep(file)
  }

  async function push(item: PageItem, file: File) {
    const id = crypto.randomUUID?.() ?? `${Date.now()} ${Math.random()}`
    const one = reactive<ChosenFile>({
      id, once: id, item, name: file.name, size: file.size, lastModified: file.lastModified, print: '', file, state: 'chosen', problem: problemOf(file, item), sent: 0,
    })
    chosen.push(one)
    one.print = await printOf(file)
    if (chosen.includes(one)) remember(one)
  }

  /** A file that has to be picked again is known by its content; one of the same name with other content is added by itself. */
  async function picked(file: File): Promise<boolean> {
    const missing = chosen.filter((one) => one.state === 'pick' && one.size === file.size)
    if (missing.length === 0) {
      const named = chosen.find((one) => one.state === 'pick' && one.name === file.name)
      if (named) notices[named.item.number] = text.notTheSame(file.name)
      return false
    }
    const print = await printOf(file)
    const found = missing.find((one) => (one.print && print ? one.print === print : one.name === file.name))
    if (!found) {
      const named = missing.find((one) => one.name === file.name)
      if (named) notices[named.item.number] = text.notTheSame(file.name)
      return false
    }
    // As it was called and dated when it was begun, so that what has arrived of it is found.
    Object.assign(found, { file: new File([file], found.name, { type: file.type, lastModified: found.lastModified }), state: 'chosen', problem: '' })
    remember(found)
    return true
  }

  async function add(item: PageItem, files: File[]) {
    delete notices[item.number]
    const refused: string[] = []
    const takesTheOnlyPlace = roomOf(item) === 1 && files.length === 1
    for (const file of files) {
      if (await picked(file)) continue
      const here = ofItem(item)
      if (here.some((one) => one.name === file.name && one.size === file.size && one.lastModified === file.lastModified)) {
        notices[item.number] = text.already(file.name)
      } else if (takesTheOnlyPlace && here.length === 1 && here[0]!.state !== 'there') {
        remove(here[0]!)
        await push(item, file)
      } else if (here.length >= roomOf(item)) {
        refused.push(file.name)
      } else {
        await push(item, file)
      }
    }
    if (refused.length > 0) notices[item.number] = text.tooMany(roomOf(item), refused.join(', '))
  }

  /** Puts each of several files to the item it seems to belong to. */
  async function addTogether(items: PageItem[], files: File[]) {
    for (const file of files) {
      const item = itemFor(file.name, items, (one) => roomOf(one) - ofItem(one).length)
      if (item) await add(item, [file])
    }
  }

  /** Has a file belong to another item. */
  function move(one: ChosenFile, item: PageItem) {
    if (ofItem(item).length >= roomOf(item)) {
      notices[item.number] = text.tooMany(roomOf(item), one.name)
      return
    }
    delete notices[one.item.number]
    Object.assign(one, { item, problem: problemOf(one, item), state: one.state === 'failed' ? 'chosen' : one.state, upload: undefined, sent: 0 })
    remember(one)
  }

  function remove(one: ChosenFile) {
    void one.upload?.abort(one.state !== 'there')
    const at = chosen.findIndex((other) => other.id === one.id)
    if (at >= 0) chosen.splice(at, 1)
    delete notices[one.item.number]
    void kept.forget(one.id)
  }

  /** Brings back what this browser remembers. What the round does not ask for any more is forgotten. */
  async function restore(items: PageItem[]) {
    if (!keeps) return
    for (const file of await kept.find()) {
      const item = items.find((one) => one.number === file.item && !one.excused)
      if (!item || chosen.some((one) => one.id === file.id)) {
        if (!item) void kept.forget(file.id)
        continue
      }
      const content = file.content && new File([file.content], file.name, { type: file.content.type, lastModified: file.lastModified })
      chosen.push({
        id: file.id, once: file.id, item, name: file.name, size: file.size, lastModified: file.lastModified, print: file.print, file: content, sent: file.there ? file.size : 0,
        state: file.there ? 'there' : content ? 'chosen' : 'pick', problem: file.there || content ? '' : text.pickAgain(file.name),
      })
    }
  }

  /** All of it is sent, or none of it is wanted any more. */
  function clear() {
    chosen.splice(0)
    for (const number of Object.keys(notices)) delete notices[Number(number)]
    void kept.forgetAll()
  }

  return { chosen, notices, bytes, ofItem, roomOf, remember, add, addTogether, move, remove, restore, clear }
}
