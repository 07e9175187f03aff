import 'dayjs/locale/en-gb'
import en from 'element-plus/es/locale/lang/en'

/** The library's own words, with the calendar of the office: the week begins on Monday. */
export const libraryLocale = { ...en, name: 'en-gb' }
