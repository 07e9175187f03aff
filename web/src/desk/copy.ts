/** Puts text on the clipboard; false when the browser does not let us, as on plain http. */
export async function copy(words: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(words)
    return true
  } catch {
    const area = document.createElement('textarea')
    area.value = words
    area.setAttribute('readonly', '')
    area.className = 'hidden-text'
    document.body.append(area)
    area.select()
    const done = document.execCommand('copy')
    area.remove()
    return done
  }
}
