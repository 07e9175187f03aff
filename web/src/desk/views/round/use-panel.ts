import { computed, reactive, ref, watch } from 'vue'
import { desk, type PanelFile, type Review } from '../../../api/desk'
import { text } from '../../../text/desk'
import { copy } from '../../copy'
import { say, sayProblem } from '../../say'
import { useLoaded } from '../../use-loaded'

/** One basket in the panel: its files, what is chosen of them, and what can be done. */
export function usePanel(basketId: number, touched: () => number) {
  const { value: panel, problem, load } = useLoaded(() => desk.panel(basketId))
  const chosen = reactive(new Set<number>())
  const previewed = ref<number>()
  const linkToCopy = ref('')
  watch(touched, () => void load())

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
    return act(() => desk.review(file.id, file.review, to, reason), () => say(`${text.panel.events[to === 'ACCEPTED' ? 'accepted' : 'returned']!(1)}: ${file.name}`, undo))
  }

  function waive(itemId: number, waived: boolean) {
    return act(() => desk.waive(basketId, itemId, waived))
  }

  function excuse(excused: boolean) {
    return act(() => desk.excuse(basketId, excused), () => say(excused ? text.panel.excusedAll : text.panel.askedAgain, { label: text.panel.undo, run: () => void excuse(!excused) }))
  }

  /** Throws the problem, so that the form can show it at its fields. */
  async function extend(date: string | null, reason: string) {
    const before = { date: panel.value?.extension ?? null, reason: panel.value?.extensionReason ?? '' }
    await desk.extend(basketId, date, reason)
    await load()
    say(date ? text.panel.extended(date) : text.panel.unextend, { label: text.panel.undo, run: () => void act(() => desk.extend(basketId, before.date, before.reason)) })
  }

  async function copyLink() {
    await act(async () => {
      const { url } = await desk.basketLink(basketId)
      if (await copy(url)) say(text.round.copied)
      else linkToCopy.value = url
      await desk.handedOver(basketId)
    })
  }

  return { panel, problem, load, chosen, previewed, linkToCopy, zip, one, toggle, review, waive, excuse, extend, copyLink }
}
