/** The later texts in every language, for the build. */
export { later as ar } from './ar.ts'
export { later as de } from './de.ts'
export { later as en } from './en.ts'
export { later as es } from './es.ts'
export { later as fr } from './fr.ts'
export { later as pl } from './pl.ts'
