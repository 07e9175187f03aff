import { computed, nextTick, onScopeDispose, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { desk, type Draft, type RoundSheet, type Schemas, type SheetItem } from '../../../api/desk'
import { ApiProblem, type FieldError } from '../../../api/problem'
import { session } from '../../use-session'

const SAVE_AFTER_MILLISECONDS = 400

export function emptyItem(): SheetItem {
  return { id: null, title: '', help: '', required: true, minFiles: 1, maxFiles: 1, kinds: [], maxMebibytes: 50, groups: [], formId: null, formName: '' }
}

function emptySheet(): RoundSheet {
  return {
    title: '', note: '', items: [emptyItem()], people: [], peopleText: '', groups: [], deadlineDate: '', deadlineTime: '17:00',
    zone: session.value?.zone ?? 'UTC', warningHours: 72, graceHours: 0, closingDate: '', closingTime: '', keepUntil: '', calendarId: null, folderPattern: '{round}/{person}',
    namePattern: '{person} - {item} - {received:yyyy-MM-dd}{ext}', openLink: false, passcode: '', takesActive: false,
    letters: { invite: false, tellReturned: true, steps: [], repeatEvery: 5, repeatTimes: 0, shift: 'EARLIER' },
  }
}

/** A sheet being composed. It is saved as a draft from the first change on; saves never overlap and never lose the last change. */
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
  /** Whether there is something to type into: a draft that is still being read would take the place of what is typed. */
  const loaded = ref(draftId === undefined)
  const opened = ref(false)
  const shown = ref(false)
  let dirty = false
  let loading = false
  let timer = 0
  let running: Promise<void> = Promise.resolve()

  async function load() {
    if (!id.value) {
      // Letters are the usual way wherever there is a mail server to carry them.
      const post = await desk.post().catch(() => undefined)
      if (post?.server && !id.value && !dirty) {
        loading = true
        sheet.letters.invite = true
        await nextTick()
        loading = false
      }
      return
    }
    try {
      loading = true
      const draft = await desk.sheet(id.value)
      Object.assign(sheet, draft.sheet)
      take(draft)
      opened.value = draft.head.state !== 'DRAFT'
      loaded.value = true
      await nextTick()
    } catch (error) {
      problem.value = error as ApiProblem
    } finally {
      loading = false
    }
  }

  function take(draft: Draft) {
    id.value = draft.head.id
    version.value = draft.head.version
    errors.value = draft.errors
    oddities.value = draft.oddities
    savedAt.value = draft.head.changedAt
  }

  watch(sheet, () => {
    if (loading || opened.value) return
    dirty = true
    saving.value = true
    clearTimeout(timer)
    timer = window.setTimeout(() => void save(), SAVE_AFTER_MILLISECONDS)
  })

  function save(): Promise<void> {
    clearTimeout(timer)
    running = running.then(saveOnce)
    return running
  }

  async function saveOnce() {
    if (!dirty) return
    dirty = false
    try {
      const plain = JSON.parse(JSON.stringify(sheet)) as RoundSheet
      if (id.value) take(await desk.save(id.value, version.value, plain))
      else {
        take(await desk.begin(plain))
        await router.replace({ name: 'sheet', params: { id: id.value } })
      }
      problem.value = undefined
    } catch (error) {
      dirty = true
      problem.value = error as ApiProblem
    } finally {
      saving.value = dirty && !problem.value
    }
  }

  /** What opening would do, when nothing stands against it; else shows what does. */
  async function ask(): Promise<Schemas['OpeningPreview'] | undefined> {
    shown.value = true
    if (!id.value) dirty = true
    await save()
    if (problem.value || !id.value) return undefined
    return desk.opening(id.value).catch(refused)
  }

  /** Opens the round as it was saved last; true when it is open. */
  async function open(): Promise<boolean> {
    await save()
    if (problem.value || !id.value) return false
    try {
      await desk.open(id.value, version.value)
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
    clearTimeout(timer)
    await running
    opened.value = true
    try {
      if (id.value) await desk.discard(id.value)
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

  return { sheet, loaded, id, errors, oddities, savedAt, saving, problem, opened, shown, load, save, ask, open, discard, errorAt }
}
