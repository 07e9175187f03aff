const attribute = (words: string) => words.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;')

/** What is put into a page of one's own to show an open link in it. */
export function frameCode(url: string, title: string, width = 720, height = 900): string {
  return `<iframe src="${attribute(url.replace(/\/b\//, '/f/'))}" title="${attribute(title)}" width="${width}" height="${height}" style="border: 0; max-width: 100%"></iframe>`
}
