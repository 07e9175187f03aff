import { watchDebounced } from '@vueuse/core'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import { same, type Conflict } from '../../both/merge'
import { say, sayProblem } from '../../say'
import { emptyRule, type Rule } from './rule-words'

const WAIT_MILLISECONDS = 300

/** A rule with a name of its own while it is changed, so that it keeps its place on the page when others move. */
export interface Edited {
  key: number
  rule: Rule
}

/** The rules of a round or of the office while they are changed: what is odd about them, the trial, keeping them. */
export function useRules(round: number) {
  const list = ref<Schemas['RuleList']>()
  const edited = reactive<Edited[]>([])
  const problem = ref<ApiProblem>()
  const errors = ref<{ field: string; detail: string }[]>([])
  const idle = ref<Schemas['IdleRule'][]>([])
  const trial = ref<Schemas['TrialView']>()
  const tried = ref('')
  const busy = ref(false)
  /** What somebody else kept while these were changed. */
  const theirs = shallowRef<Schemas['RuleList']>()
  let keys = 0

  const typed = computed(() => JSON.stringify(edited.map((one) => one.rule)))
  const changed = computed(() => list.value !== undefined && typed.value !== JSON.stringify(list.value.rules))
  const outdated = computed(() => trial.value !== undefined && tried.value !== typed.value)

  function show(given: Schemas['RuleList']) {
    list.value = given
    idle.value = given.idle
    errors.value = []
    edited.splice(0, edited.length, ...structuredClone(given.rules).map((rule) => ({ key: keys++, rule })))
  }

  async function load() {
    try {
      show(await desk.rules(round))
      problem.value = undefined
    } catch (error) {
      problem.value = error as ApiProblem
    }
  }

  /** What somebody else kept meanwhile is taken over as long as nothing was typed here. */
  async function freshen() {
    if (!changed.value && !busy.value) await load()
  }

  const rules = () => JSON.parse(typed.value) as Rule[]

  watchDebounced(typed, async () => {
    if (!changed.value) return
    try {
      const checked = await desk.checkRules(round, rules())
      errors.value = (checked.errors as unknown as { field: string; detail: string }[])
      idle.value = checked.idle
    } catch (error) {
      sayProblem(error)
    }
  }, { debounce: WAIT_MILLISECONDS })
  watch(changed, (now) => !now && (errors.value = []))

  async function work<T>(what: () => Promise<T>): Promise<T | undefined> {
    busy.value = true
    try {
      return await what()
    } catch (error) {
      const refused = error as ApiProblem
      if (refused.errors?.length) errors.value = refused.errors
      else sayProblem(refused)
      return undefined
    } finally {
      busy.value = false
    }
  }

  function tryIt() {
    return work(async () => {
      const checked = await desk.checkRules(round, rules())
      errors.value = checked.errors as unknown as { field: string; detail: string }[]
      if (errors.value.length > 0) return
      const now = typed.value
      trial.value = await desk.tryRules(round, changed.value ? rules() : null)
      tried.value = now
    })
  }

  async function keep(quietly = false): Promise<boolean> {
    if (!changed.value) return true
    const before = list.value!.version
    const kept = await work(() => desk.keepRules(round, before, rules()).catch(meanwhile))
    if (!kept) return false
    show(kept)
    tried.value = tried.value && typed.value
    if (!quietly) say(text.filing.kept, { label: text.panel.undo, run: () => void work(async () => { show(await desk.rulesBack(round, kept.version, before)); say(text.filing.backTo) }) })
    return true
  }

  /** The order of rules is what they mean, so two lists are never put together: one of them is chosen. */
  async function meanwhile(error: ApiProblem) {
    if (error.code !== 'changed-elsewhere') throw error
    const now = await desk.rules(round)
    if (same(now.rules, rules())) show(now)
    else theirs.value = now
    return undefined
  }

  const conflicts = computed<Conflict[]>(() => (theirs.value ? [{ field: 'rules', mine: rules(), theirs: theirs.value.rules }] : []))

  async function decide(_: Conflict, other: boolean) {
    const now = theirs.value!
    theirs.value = undefined
    if (other) return show(now)
    list.value = now
    await keep()
  }

  /** Keeps the rules and puts them to what is here, exactly as the trial showed. */
  async function apply(): Promise<Schemas['Refiling'] | undefined> {
    const shown = trial.value
    if (!shown || outdated.value || !(await keep(true))) return undefined
    const begun = await work(() => desk.refile(round, shown.last, shown.seal))
    trial.value = undefined
    return begun
  }

  function add() {
    edited.push({ key: keys++, rule: emptyRule() })
  }

  function move(at: number, by: number) {
    const to = at + by
    if (to < 0 || to >= edited.length) return
    edited.splice(to, 0, ...edited.splice(at, 1))
  }

  function remove(at: number) {
    const [gone] = edited.splice(at, 1)
    say(text.filing.removed(at + 1), { label: text.panel.undo, run: () => edited.splice(Math.min(at, edited.length), 0, gone!) })
  }

  function errorAt(field: string): string {
    return errors.value.find((one) => one.field === field)?.detail ?? ''
  }

  return { list, edited, problem, errors, idle, trial, outdated, changed, busy, conflicts, decide, load, freshen, tryIt, keep, apply, add, move, remove, errorAt, drop: () => show(list.value!) }
}
