import { begunWith } from './begun'

/** What people outside see of the office, beside its name. Colours are empty where they are those of the product. */
export interface Face {
  colour: string
  background: string
  logo: string
  contact: string
  privacy: string
}

/** The office's own face; undefined where no server wrote it. */
export const face = begunWith<Face>('face')

/** The colours of the application that a face changes, each to what of it. */
export function coloursOf(face: Pick<Face, 'colour' | 'background'>): Record<string, string> {
  const own: Record<string, string> = {}
  if (face.colour) for (const name of ['--leaf', '--leaf-deep', '--oak']) own[name] = face.colour
  if (face.background) own['--paper'] = face.background
  return own
}

/** Gives the page the office's colours. */
export function wear() {
  if (!face) return
  for (const [name, value] of Object.entries(coloursOf(face))) document.documentElement.style.setProperty(name, value)
}
