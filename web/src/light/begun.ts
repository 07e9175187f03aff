/** The language in which the server wrote the page. */
export const sentLanguage = document.documentElement.lang

/** Data that the server wrote into the page itself; undefined where there is none. */
export function begunWith<T>(id: string): T | undefined {
  const data = document.getElementById(id)?.textContent
  // Where no server wrote, as while developing, the place is as it was.
  return data && !data.startsWith('__') ? (JSON.parse(data) as T) : undefined
}
