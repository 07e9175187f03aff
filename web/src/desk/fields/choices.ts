/** A value and the words for it. */
export interface Choice<T> {
  value: T
  label: string
}

/** What a table of words offers, in its order. */
export function choices<K extends string>(words: Record<K, string>): Choice<K>[] {
  return Object.entries<string>(words).map(([value, label]) => ({ value: value as K, label }))
}
