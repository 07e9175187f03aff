/** What was typed and begun for a link and not ended, as this browser remembers it. */
export interface KeptSending {
  /** The key of the sending; empty while none was begun. */
  submission: string
  name: string
  email: string
  note: string
  /** Whether it was being sent: it then goes on by itself. */
  underWay: boolean
}

const LIFE_MILLISECONDS = 7 * 24 * 60 * 60 * 1000

/**
 * Remembers in this browser, for one link, the sending under way and what was typed, so that a reload goes on with it. Where the browser keeps nothing,
 * everything works but that.
 */
export function keptSending(token: string) {
  const name = `oak-basket sending ${token}`

  function find(): KeptSending | undefined {
    try {
      const kept = JSON.parse(localStorage.getItem(name) ?? 'null') as (KeptSending & { until: number }) | null
      if (kept && kept.until > Date.now()) return kept
      localStorage.removeItem(name)
    } catch {
      return undefined
    }
    return undefined
  }

  function keep(sending: KeptSending) {
    try {
      localStorage.setItem(name, JSON.stringify({ ...sending, until: Date.now() + LIFE_MILLISECONDS }))
    } catch {
      // A browser that keeps nothing: a reload then begins anew.
    }
  }

  function forget() {
    try {
      localStorage.removeItem(name)
    } catch {
      // There was nothing to forget.
    }
  }

  /** The same file of the same sending for the same item has the same one. */
  function fingerprint(submission: string, item: number, file: File): string {
    return ['oak-basket', submission, item, file.name, file.size, file.lastModified].join(' ')
  }

  return { find, keep, forget, fingerprint }
}
