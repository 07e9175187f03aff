/** One item of one basket, as the board's number for it says; see TileCode on the server. */
export type Standing = 'NOT_OWED' | 'WAIVED' | 'RETURNED' | 'ACCEPTED' | 'ARRIVED' | 'PART' | 'WANTED'

export interface Tile {
  standing: Standing
  late: boolean
  overdue: boolean
  files: number
}

const STANDINGS: Standing[] = ['NOT_OWED', 'WAIVED', 'RETURNED', 'ACCEPTED', 'ARRIVED', 'PART', 'WANTED']

export function tileOf(code: number): Tile {
  return { standing: STANDINGS[code & 7]!, late: (code & 8) !== 0, overdue: (code & 16) !== 0, files: code >> 5 }
}
