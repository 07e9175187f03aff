import type { RoundSheet } from '../../../api/desk'
import { session } from '../../use-session'

/** What was typed into a draft and is not yet known to be on the server, and the version that it was typed into. */
export interface KeptDraft {
  base: RoundSheet
  version: number
  sheet: RoundSheet
}

/** One place for each draft and coordinator; whoever else uses this browser is shown nothing of it. */
function place(id: number | undefined): string {
  return `oak-draft ${session.value?.email ?? ''} ${id ?? 'new'}`
}

export function keepDraft(id: number | undefined, draft: KeptDraft): void {
  try {
    localStorage.setItem(place(id), JSON.stringify(draft))
  } catch {
    // A browser that keeps nothing, or has no room: the server still gets it a moment later.
  }
}

export function keptDraft(id: number | undefined): KeptDraft | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(place(id)) ?? 'null') as KeptDraft | null
    return kept?.sheet && kept.base ? kept : undefined
  } catch {
    return undefined
  }
}

export function forgetDraft(id: number | undefined): void {
  localStorage.removeItem(place(id))
}
