import { useEventListener, useTimeoutFn } from '@vueuse/core'
import { computed, nextTick, onScopeDispose, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { desk, type Draft, type RoundSheet, type Schemas, type SheetItem } from '../../../api/desk'
import { ApiProblem, type FieldError } from '../../../api/problem'
import { text } from '../../../text/desk'
import { connected } from '../../live'
import { say } from '../../say'
import { session, sessionEnded } from '../../use-session'
import { forgetDraft, keepDraft, keptDraft } from './kept-draft'
import { merge, together, type Conflict } from '../../both/merge'

const SAVE_AFTER_MILLISECONDS = 400

export function emptyItem(): SheetItem {
  return { id: null, title: '', help: '', required: true, minFiles: 1, maxFiles: 1, kinds: [], maxMebibytes: 50, groups: [], formId: null, formName: '', archives: 'AS_SENT', unchecked: 'WAIT' }
}

/** What most rounds need (common practice, no source): a week and a day before, a day after, and then weekly. */
export function usualPlan(): Pick<RoundSheet['letters'], 'steps' | 'repeatEvery' | 'repeatTimes'> {
  const at = '09:00'
  return { steps: [{ days: -5, unit: 'WORKING', at, lastCall: false }, { days: -1, unit: 'WORKING', at, lastCall: false }, { days: 1, unit: 'WORKING', at, lastCall: false }], repeatEvery: 5, repeatTimes: 3 }
}

function emptySheet(): RoundSheet {
  return {
    title: '', note: '', items: [emptyItem()], people: [], peopleText: '', groups: [], deadlineDate: '', deadlineTime: '17:00',
    zone: session.value?.zone ?? 'UTC', warningHours: 72, graceHours: 0, closingDate: '', closingTime: '', keepUntil: '', calendarId: null, folderPattern: '{round}/{person}',
    namePattern: '{person} - {item} - {received:yyyy-MM-dd}{ext}', openLink: false, passcode: '', takesActive: false,
    letters: { invite: false, tellReturned: true, tellExtended: true, tellReceived: true, thank: true, steps: [], repeatEvery: 5, repeatTimes: 0, shift: 'EARLIER' },
  }
}

const plain = (sheet: RoundSheet) => JSON.parse(JSON.stringify(sheet)) as RoundSheet

/**
 * A sheet being composed. It is saved as a draft from the first change on; saves never overlap and never lose the last change. Until the server has it, the
 * browser keeps it. When somebody else, or another window, saved meanwhile, both versions are put together; what both changed differently is asked.
 */
export function useSheet(draftId: number | undefined) {
  const router = useRouter()
  const sheet = reactive<RoundSheet>(emptySheet())
  const id = ref(draftId)
  const version = ref(0)
  const errors = ref<FieldError[]>([])
  const oddities = ref<FieldError[]>([])
  const savedAt = ref('')
  const saving = ref(false)
  const problem = ref<ApiProblem>()
  /** What two sides changed differently; nothing is saved until it is decided. */
  const conflicts = ref<Conflict[]>([])
  /** Whether there is something to type into: a draft that is still being read would take the place of what is typed. */
  const loaded = ref(draftId === undefined)
  const opened = ref(false)
  const shown = ref(false)
  let base = plain(sheet)
  let dirty = false
  let loading = false
  let running: Promise<void> = Promise.resolve()
  const saver = useTimeoutFn(() => void save(), SAVE_AFTER_MILLISECONDS, { immediate: false })

  async function load() {
    problem.value = undefined
    try {
      if (id.value) await read(id.value)
      else await begin()
    } catch (error) {
      problem.value = error as ApiProblem
    }
  }

  /** Letters are the usual way wherever there is a mail server to carry them. */
  async function begin() {
    const kept = keptDraft(undefined)
    if (kept) {
      Object.assign(sheet, kept.sheet)
      say(text.compose.restored)
      return
    }
    const post = await desk.post().catch(() => undefined)
    if (post?.server && !id.value && !dirty) {
      await quietly(() => Object.assign(sheet.letters, { invite: true, ...usualPlan() }))
      base = plain(sheet)
    }
  }

  async function read(draft: number) {
    const fresh = await desk.sheet(draft)
    const kept = keptDraft(draft)
    opened.value = fresh.head.state !== 'DRAFT'
    await quietly(() => Object.assign(sheet, fresh.sheet))
    take(fresh)
    loaded.value = true
    if (opened.value) forgetDraft(draft)
    if (!kept || opened.value) return
    version.value = kept.version
    base = kept.base
    await quietly(() => Object.assign(sheet, kept.sheet))
    await join(fresh)
  }

  /** Takes over what changed on the server since the version this window began from. */
  async function join(fresh: Draft) {
    const merged = merge(base, plain(sheet), fresh.sheet, { people: together })
    conflicts.value = merged.conflicts
    // Only what differs is written, so that the cursor stays where somebody types.
    await quietly(() => {
      for (const field of Object.keys(merged.sheet) as (keyof RoundSheet)[]) {
        if (JSON.stringify(sheet[field]) !== JSON.stringify(merged.sheet[field])) Object.assign(sheet, { [field]: merged.sheet[field] })
      }
    })
    take(fresh)
    if (JSON.stringify(merged.sheet) === JSON.stringify(fresh.sheet)) {
      dirty = false
      forgetDraft(id.value)
    } else {
      dirty = true
      keep()
      if (conflicts.value.length === 0) saver.start()
    }
  }

  /** Decides one conflict. */
  function decide(conflict: Conflict, theirs: boolean) {
    if (theirs) Object.assign(sheet, { [conflict.field]: conflict.theirs })
    conflicts.value = conflicts.value.filter((one) => one !== conflict)
    dirty = true
    if (conflicts.value.length === 0) void save()
  }

  async function quietly(write: () => void) {
    loading = true
    write()
    await nextTick()
    loading = false
  }

  function take(draft: Draft) {
    id.value = draft.head.id
    version.value = draft.head.version
    errors.value = draft.errors
    oddities.value = draft.oddities
    savedAt.value = draft.head.changedAt
    base = draft.sheet
  }

  function keep() {
    if (dirty && !opened.value) keepDraft(id.value, { base, version: version.value, sheet: plain(sheet) })
  }

  watch(sheet, () => {
    if (loading || opened.value) return
    dirty = true
    saving.value = true
    saver.start()
  })

  function save(): Promise<void> {
    saver.stop()
    running = running.then(saveOnce)
    return running
  }

  async function saveOnce() {
    if (!dirty || conflicts.value.length > 0) return
    keep()
    dirty = false
    const sent = plain(sheet)
    try {
      const before = id.value
      if (before) take(await desk.save(before, version.value, sent))
      else {
        take(await desk.begin(sent))
        await router.replace({ name: 'sheet', params: { id: id.value } })
      }
      problem.value = undefined
      if (!dirty) forgetDraft(before)
    } catch (error) {
      dirty = true
      problem.value = error as ApiProblem
      if (problem.value.code === 'changed-elsewhere' && id.value) await rejoin()
      else keep()
    } finally {
      saving.value = dirty && !problem.value
    }
  }

  async function rejoin() {
    try {
      await join(await desk.sheet(id.value!))
      problem.value = undefined
      say(conflicts.value.length > 0 ? text.both.help : text.compose.merged)
    } catch (error) {
      problem.value = error as ApiProblem
    }
  }

  /** Whoever comes back to this window sees what another one did to the draft meanwhile. */
  async function look() {
    if (document.visibilityState !== 'visible' || !id.value || !loaded.value || opened.value || conflicts.value.length > 0) return
    await running
    const fresh = await desk.sheet(id.value).catch(() => undefined)
    if (!fresh || fresh.head.version === version.value || dirty) return
    if (fresh.head.state !== 'DRAFT') opened.value = true
    else await join(fresh)
  }

  useEventListener(document, 'visibilitychange', () => void look())
  useEventListener(window, 'focus', () => void look())
  useEventListener(window, 'pagehide', () => {
    keep()
    if (dirty && !opened.value && id.value && conflicts.value.length === 0) void desk.saveLeaving(id.value, version.value, plain(sheet)).catch(() => {})
  })
  watch([sessionEnded, connected], ([ended, on]) => {
    if (!ended && on && dirty) void save()
  })

  /** What opening would do, when nothing stands against it; else shows what does. */
  async function ask(): Promise<Schemas['OpeningPreview'] | undefined> {
    shown.value = true
    if (!id.value) dirty = true
    await save()
    if (problem.value || !id.value || conflicts.value.length > 0) return undefined
    return desk.opening(id.value).catch(refused)
  }

  /** Opens the round as it was saved last; true when it is open. */
  async function open(): Promise<boolean> {
    await save()
    if (problem.value || !id.value) return false
    try {
      await desk.open(id.value, version.value)
      forgetDraft(id.value)
      return (opened.value = true)
    } catch (error) {
      refused(error)
      return false
    }
  }

  function refused(error: unknown): undefined {
    const refusal = error as ApiProblem
    if (refusal.errors.length > 0) errors.value = refusal.errors
    else problem.value = refusal
  }

  async function discard() {
    saver.stop()
    await running
    opened.value = true
    try {
      if (id.value) await desk.discard(id.value)
      forgetDraft(id.value)
    } catch (error) {
      // The draft is still there, so what is typed must be saved again.
      opened.value = false
      throw error
    }
  }

  /** The error of a field, once somebody tried to open the round. */
  const errorAt = computed(() => (field: string) => (shown.value ? (errors.value.find((error) => error.field === field)?.detail ?? '') : ''))

  onScopeDispose(() => {
    if (dirty && !opened.value) void save()
  })

  return { conflicts, decide, sheet, loaded, id, errors, oddities, savedAt, saving, problem, opened, shown, load, save, ask, open, discard, errorAt }
}
