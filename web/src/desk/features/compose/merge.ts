import type { RoundSheet } from '../../../api/desk'

type Field = keyof RoundSheet

/** A field that two people, or two windows, changed differently. */
export interface Conflict {
  field: Field
  mine: RoundSheet[Field]
  theirs: RoundSheet[Field]
}

/** Two versions of a draft put together: what only one side changed is taken; what both changed differently stays mine, and is named. */
export interface Merged {
  sheet: RoundSheet
  conflicts: Conflict[]
}

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other)

/**
 * Merges by field; people added on both sides are all kept, since nobody takes the place of another.
 *
 * @param base the version both began from
 */
export function merge(base: RoundSheet, mine: RoundSheet, theirs: RoundSheet): Merged {
  const sheet = structuredClone(mine)
  const conflicts: Conflict[] = []
  for (const field of Object.keys(theirs) as Field[]) {
    if (same(mine[field], theirs[field]) || same(theirs[field], base[field])) continue
    if (same(mine[field], base[field])) Object.assign(sheet, { [field]: theirs[field] })
    else if (field === 'people') sheet.people = together(base.people, mine.people, theirs.people)
    else conflicts.push({ field, mine: mine[field], theirs: theirs[field] })
  }
  return { sheet, conflicts }
}

/** Everybody of either side, but nobody whom one of them took out. */
function together(base: RoundSheet['people'], mine: RoundSheet['people'], theirs: RoundSheet['people']): RoundSheet['people'] {
  const has = (list: RoundSheet['people'], one: RoundSheet['people'][number]) => list.some((other) => same(other, one))
  const added = theirs.filter((one) => !has(base, one) && !has(mine, one))
  return [...mine.filter((one) => !has(base, one) || has(theirs, one)), ...added]
}
