import { useEventListener } from '@vueuse/core'

/** Single keys for a view. They rest while somebody types, while a dialog is open, and with any modifier. */
export function useKeys(keys: Record<string, () => void>): void {
  function listen(event: KeyboardEvent) {
    const target = event.target as HTMLElement
    const typing = target.isContentEditable || (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) && (target as HTMLInputElement).type !== 'checkbox')
    if (typing || event.ctrlKey || event.metaKey || event.altKey || document.querySelector('.el-overlay:not([style*="display: none"])')) return
    const run = keys[event.key]
    if (!run) return
    event.preventDefault()
    run()
  }
  useEventListener(document, 'keydown', listen)
}
