const MOST_BYTES = 8 * 1024 * 1024
const PAGE = /\/Type\s*\/Page(?![A-Za-z])/g

/** How many pages a PDF has, where that can be counted without understanding it; 0 where it cannot. */
export async function pagesOf(file: File): Promise<number> {
  if (!/\.pdf$/i.test(file.name) || file.size > MOST_BYTES) return 0
  try {
    const content = new TextDecoder('latin1').decode(await file.arrayBuffer())
    return content.match(PAGE)?.length ?? 0
  } catch {
    return 0
  }
}
