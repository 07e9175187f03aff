/** Every language of the pick-up page, for the build. */
export { texts as ar } from './ar.ts'
export { texts as de } from './de.ts'
export { en } from './en.ts'
export { texts as es } from './es.ts'
export { texts as fr } from './fr.ts'
export { texts as pl } from './pl.ts'
