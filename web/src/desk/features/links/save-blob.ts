/** Hands a file that was made on request to the browser. */
export function saveBlob(content: Blob, name: string): void {
  const address = URL.createObjectURL(content)
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 60_000)
}
