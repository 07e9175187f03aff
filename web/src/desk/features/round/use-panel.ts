import { computed, reactive, ref } from 'vue'
import { desk, type PanelFile, type Review } from '../../../api/desk'
import { text } from '../../../text/desk'
import { copy } from '../../copy'
import { say, sayProblem } from '../../say'
import { useRead } from '../../queries'
import { useActs } from './use-acts'

/** One basket in the panel: its files, what is chosen of them, and what can be done. */
export function usePanel(roundId: number, basketId: number) {
  const { value: panel, problem, load } = useRead(['basket', basketId], () => desk.panel(basketId), {
    fresh: true,
    on: (event) => event.roundId === roundId && (event.basketId === null || event.basketId === basketId),
  })
  const chosen = reactive(new Set<number>())
  const previewed = ref<number>()
  const linkToCopy = ref('')

  const zip = computed(() => '/api/files.zip?' + [...chosen].map((id) => `id=${id}`).join('&'))
  const one = computed(() => (chosen.size === 1 ? `/api/files/${[...chosen][0]}` : undefined))

  function toggle(id: number) {
    if (!chosen.delete(id)) chosen.add(id)
  }

  async function act(work: () => Promise<void>, done?: () => void) {
    try {
      await work()
      await load()
      done?.()
    } catch (error) {
      sayProblem(error)
      await load()
    }
  }

  function review(file: PanelFile, to: Review, reason = '') {
    const undo = { label: text.panel.undo, run: () => void act(() => desk.review(file.id, to, file.review, file.reviewReason)) }
    return act(() => desk.review(file.id, file.review, to, reason), () => say(`${text.panel.decided[to]}: ${file.name}`, undo))
  }

  function remove(file: PanelFile, reason: string) {
    const undo = { label: text.panel.undo, run: () => void restore(file.id) }
    return act(() => desk.removeFile(file.id, reason), () => say(`${text.panel.fileRemoved}: ${file.name}`, undo))
  }

  function restore(file: number) {
    return act(() => desk.restoreFile(file), () => say(text.panel.restored))
  }

  const acts = useActs(roundId)

  /** Does something to this basket as it was seen. */
  async function set(change: Parameters<typeof acts.act>[1], words: string) {
    await acts.tryAct([panel.value!.row], change, words)
    await load()
  }

  function waive(itemId: number, on: boolean) {
    return set({ kind: 'EXCUSE_ITEM', itemId, on }, on ? text.acts.excused : text.panel.askedAgain)
  }

  /** Throws the problem, so that the form can show it at its fields. */
  async function extend(date: string | null, reason: string) {
    await acts.act([panel.value!.row], { kind: 'EXTEND', date, reason }, date ? text.panel.extended(date) : text.panel.unextend)
    await load()
  }

  async function acceptAll() {
    await act(async () => {
      const { files } = await desk.acceptAll(basketId)
      say(text.review.acceptedAll(files.length), { label: text.panel.undo, run: () => void act(() => desk.unaccept(files)) })
    })
  }

  async function copyLink() {
    await act(async () => {
      const { url } = await desk.basketLink(basketId)
      if (await copy(url)) say(text.round.copied)
      else linkToCopy.value = url
      await desk.handedOver(basketId)
    })
  }

  return { panel, problem, load, chosen, previewed, linkToCopy, zip, one, toggle, review, remove, restore, waive, set, extend, acceptAll, copyLink }
}
