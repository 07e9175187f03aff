import { computed, onScopeDispose, reactive, ref, watch } from 'vue'
import { desk, type Schemas, type Verdict } from '../../../api/desk'
import { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'

const MOST_BYTES = 20 * 1024 * 1024
const ASK_MILLISECONDS = 300

/** An import, step by step: what came is read, its columns are given meanings, the outcome is previewed, confirmed, done, and can be undone. */
export function useImport() {
  const staged = ref<Schemas['Staged']>()
  const mapping = reactive<{ columns: Schemas['Staged']['columns']; headed: boolean; group: string }>({ columns: [], headed: false, group: '' })
  const preview = ref<Schemas['ImportPreview']>()
  const verdict = ref<Verdict>('ADDED')
  const progress = ref<Schemas['ImportProgress']>()
  const problem = ref<ApiProblem>()
  const reading = ref(false)
  let content: Blob | undefined
  let source = ''
  const looking = ref(false)
  let looks = 0
  let lookedFor = ''
  let lookTimer = 0
  let followTimer = 0
  onScopeDispose(() => {
    clearTimeout(lookTimer)
    clearTimeout(followTimer)
  })

  async function read(blob: Blob, name: string, charset = '', delimiter = '') {
    problem.value = undefined
    if (blob.size > MOST_BYTES) {
      problem.value = new ApiProblem(413, 'file-too-large', name, text.importing.tooLarge, [])
      return
    }
    content = blob
    source = name
    reading.value = true
    try {
      staged.value = await desk.stageImport(blob, charset, delimiter)
      Object.assign(mapping, { columns: [...staged.value.columns], headed: staged.value.headed })
      await look()
    } catch (error) {
      problem.value = error as ApiProblem
    } finally {
      reading.value = false
    }
  }

  /** Reads the same again with another character set or delimiter. */
  function readAs(charset: string, delimiter: string) {
    return content && read(content, source, charset, delimiter)
  }

  async function look() {
    const mine = ++looks
    clearTimeout(lookTimer)
    lookedFor = JSON.stringify([plain(), verdict.value])
    if (!staged.value) {
      looking.value = false
      return
    }
    looking.value = true
    try {
      const seen = await desk.previewImport(staged.value.id, plain(), verdict.value, 0)
      if (mine !== looks) return
      preview.value = seen
      problem.value = undefined
    } catch (error) {
      if (mine !== looks) return
      preview.value = undefined
      problem.value = error as ApiProblem
    }
    looking.value = false
  }

  async function more() {
    const next = await desk.previewImport(staged.value!.id, plain(), verdict.value, preview.value!.lines.length)
    preview.value = { ...preview.value!, lines: [...preview.value!.lines, ...next.lines] }
  }

  const plain = (): Schemas['Mapping'] => ({ columns: [...mapping.columns], headed: mapping.headed, group: mapping.group })
  watch([mapping, verdict], () => {
    if (lookedFor === JSON.stringify([plain(), verdict.value])) return
    clearTimeout(lookTimer)
    looking.value = staged.value !== undefined
    lookTimer = window.setTimeout(() => void look(), ASK_MILLISECONDS)
  })

  async function apply() {
    // What was confirmed stays on the screen: nothing that is still asked may take its place.
    clearTimeout(lookTimer)
    looks++
    try {
      await desk.applyImport(staged.value!.id, plain(), source)
      await follow()
    } catch (error) {
      problem.value = error as ApiProblem
      if (problem.value.code === 'import-changed') await look()
    }
  }

  async function follow() {
    progress.value = await desk.importProgress(staged.value!.id)
    if (progress.value.state === 'RUNNING') {
      await new Promise((go) => (followTimer = window.setTimeout(go, ASK_MILLISECONDS)))
      await follow()
    }
  }

  function again() {
    staged.value = undefined
    preview.value = undefined
    progress.value = undefined
    problem.value = undefined
  }

  const running = computed(() => progress.value?.state === 'RUNNING')
  /** Whether what is shown is not yet what would be imported. */
  const unsure = computed(() => reading.value || looking.value)
  return { unsure, staged, mapping, preview, verdict, progress, problem, reading, running, read, readAs, more, apply, again }
}
