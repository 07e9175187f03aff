/** A message with a number in it, such as `1 file | {0} files`. */
export type Counted = `${string} | ${string}`
/** A message with a place to fill, such as `Sent to {0}`. */
export type Filled = `${string}{0}${string}`

type Value = string | number

/** What a message is to those who use it: plain text, or a function of what goes into its places. */
export type Said<T> = T extends string
  ? T extends `${string}{${number}}${string}` | `${string} | ${string}`
    ? (...values: Value[]) => string
    : string
  : { readonly [K in keyof T]: Said<T[K]> }

type Tree = { readonly [key: string]: string | readonly unknown[] | Tree }

/** All messages of a tree under their paths, as vue-i18n keeps them. */
export function flat(tree: object, before = ''): Record<string, string> {
  return Object.fromEntries(
    Object.entries(tree).flatMap(([key, value]): [string, string][] =>
      typeof value === 'string' ? [[before + key, value]] : Object.entries(flat(value as object, `${before}${key}.`)),
    ),
  )
}

/**
 * The messages as one typed tree: `text.round.check(3)` instead of a key in a string, so that the compiler finds a word that is
 * missing or has no value for its place. Each use asks `say` anew and therefore follows the language.
 *
 * @param tree the messages of the reference language
 * @param say the words of a path, with the values of its places and the number that decides between singular and plural
 */
export function said<T extends object>(tree: T, say: (path: string, values: Value[], count: number) => string, before = ''): Said<T> {
  const words = Array.isArray(tree) ? [] : {}
  for (const [key, value] of Object.entries(tree as Tree)) {
    const path = before + key
    if (typeof value !== 'string') {
      Object.defineProperty(words, key, { value: said(value as object, say, `${path}.`), enumerable: true })
    } else if (/\{\d\}| \| /.test(value)) {
      Object.defineProperty(words, key, { value: (...values: Value[]) => say(path, values, countOf(values)), enumerable: true })
    } else {
      Object.defineProperty(words, key, { get: () => say(path, [], 1), enumerable: true })
    }
  }
  return words as Said<T>
}

function countOf(values: Value[]): number {
  return values.find((value): value is number => typeof value === 'number') ?? 1
}
