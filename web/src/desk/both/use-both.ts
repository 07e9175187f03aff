import { ref, watch } from 'vue'
import type { ApiProblem } from '../../api/problem'
import { text } from '../../text/desk'
import { say } from '../say'
import { useSubmit } from '../use-submit'
import { merge, same, type Conflict, type Joined } from './merge'

interface Terms<T> {
  /** What the server has, as it is typed; undefined while that is not known. */
  kept: () => Partial<T> | undefined
  /** Which version that is. */
  version: () => number | undefined
  /** Reads again what the server has. */
  reload: () => Promise<unknown>
  /** Sends what is typed, with the version that was read last. */
  send: () => Promise<unknown>
  /** What comes after that. */
  done?: () => unknown
  /** What is done instead of sending again when both versions were put together, where somebody has to look first. */
  lookFirst?: () => Promise<unknown>
  joined?: Joined<T>
}

const plain = <T>(value: T) => JSON.parse(JSON.stringify(value)) as T

/**
 * A form over something that others may change meanwhile. What only they changed appears in it, what only I typed stays, and where both changed the same, both versions are shown when it is kept
 * (BothVersions.vue), so that nobody overwrites anybody unseen.
 */
export function useBoth<T extends object>(form: T, { kept, version, reload, send, done, lookFirst, joined }: Terms<T>) {
  const conflicts = ref<Conflict[]>([])
  /** Whether the two versions are to be looked at now. */
  const asked = ref(false)
  let base: Partial<T> | undefined
  let sending = false
  /** The version that something kept here followed: until another one is read, what was read says nothing of it. */
  let followed: number | undefined

  function take(now: Partial<T>) {
    if (followed !== undefined && version() === followed) return
    followed = undefined
    const theirs = plain(now)
    if (!base) Object.assign(form, plain(theirs))
    else {
      const merged = merge(base as T, plain(form), theirs as T, joined)
      // Only what differs is written, so that the cursor stays where somebody types.
      for (const field of Object.keys(merged.sheet) as (keyof T)[]) if (!same(form[field], merged.sheet[field])) form[field] = merged.sheet[field]
      const still = conflicts.value.filter(({ field }) => !same(form[field as keyof T], theirs[field as keyof T]) && !merged.conflicts.some((one) => one.field === field))
      conflicts.value = [...still.map(({ field }) => ({ field, mine: plain(form[field as keyof T]), theirs: theirs[field as keyof T] })), ...merged.conflicts]
    }
    base = theirs
  }

  const takeKept = () => {
    const now = kept()
    if (now) take(now)
  }

  watch(kept, () => !sending && takeKept(), { immediate: true, flush: 'sync' })

  async function attempt(again: boolean) {
    if (conflicts.value.length > 0) {
      asked.value = true
      return
    }
    const sent = plain(form)
    const from = version()
    sending = true
    try {
      await send()
      // The server may write it a little differently; that is nobody else's change.
      base = sent
      followed = from
    } catch (error) {
      if (!again || (error as ApiProblem).code !== 'changed-elsewhere') throw error
      sending = false
      await reload()
      // It may have come while this was being sent, so that reading it again brought nothing new.
      takeKept()
      if (conflicts.value.length === 0) say(text.both.merged)
      if (conflicts.value.length === 0 && lookFirst) await lookFirst()
      else await attempt(false)
      return
    } finally {
      sending = false
      takeKept()
    }
    await done?.()
  }

  const { problem, busy, submit } = useSubmit(() => attempt(true))

  /** Decides one conflict; after the last it is kept. */
  async function decide(conflict: Conflict, theirs: boolean) {
    if (theirs) form[conflict.field as keyof T] = plain(conflict.theirs) as T[keyof T]
    conflicts.value = conflicts.value.filter((one) => one.field !== conflict.field)
    if (conflicts.value.length > 0) return
    asked.value = false
    await (lookFirst ?? submit)()
  }

  /** Leaves what was typed, for what the server has. */
  function anew() {
    base = undefined
    followed = undefined
    conflicts.value = []
    asked.value = false
    problem.value = undefined
    takeKept()
  }

  return { conflicts, asked, problem, busy, submit, decide, anew }
}
