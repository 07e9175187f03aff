/** A field that two people, or two windows, changed differently. */
export interface Conflict {
  field: string
  mine: unknown
  theirs: unknown
}

/** Two versions put together: what only one side changed is taken; what both changed differently stays mine, and is named. */
export interface Merged<T> {
  sheet: T
  conflicts: Conflict[]
}

/** Puts a field together that both changed, where that can be done without choosing. */
export type Joined<T> = { [K in keyof T]?: (base: T[K], mine: T[K], theirs: T[K]) => T[K] }

export const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other)

/**
 * Merges by field.
 *
 * @param base the version both began from
 */
export function merge<T extends object>(base: T, mine: T, theirs: T, joined: Joined<T> = {}): Merged<T> {
  const sheet = structuredClone(mine)
  const conflicts: Conflict[] = []
  // What is left open by one side is a value too.
  for (const field of new Set([base, mine, theirs].flatMap(Object.keys)) as Set<keyof T & string>) {
    if (same(mine[field], theirs[field]) || same(theirs[field], base[field])) continue
    const join = joined[field]
    if (same(mine[field], base[field])) sheet[field] = structuredClone(theirs[field])
    else if (join) sheet[field] = join(base[field], mine[field], theirs[field])
    else conflicts.push({ field, mine: mine[field], theirs: theirs[field] })
  }
  return { sheet, conflicts }
}

/** Everybody of either side, but nobody whom one of them took out: nobody takes the place of another. */
export function together<P>(base: P[], mine: P[], theirs: P[]): P[] {
  const has = (list: P[], one: P) => list.some((other) => same(other, one))
  const added = theirs.filter((one) => !has(base, one) && !has(mine, one))
  return [...mine.filter((one) => !has(base, one) || has(theirs, one)), ...added]
}
