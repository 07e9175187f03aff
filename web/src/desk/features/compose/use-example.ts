import { watchDebounced } from '@vueuse/core'
import { reactive, ref } from 'vue'
import { desk, type RoundSheet } from '../../../api/desk'

const WAIT_MILLISECONDS = 250

/** Where files of this sheet would go, asked of the server while the patterns are typed. */
export function useExample(sheet: RoundSheet) {
  const paths = ref<string[]>([])
  const problems = reactive<{ folderPattern: string; namePattern: string }>({ folderPattern: '', namePattern: '' })

  async function ask() {
    const people = sheet.people.length > 0 ? sheet.people.slice(0, 2) : [{ name: '', email: '' }]
    const items = sheet.items.filter((item) => item.title).slice(0, 2)
    const samples = people.flatMap((person) => (items.length > 0 ? items : [{ title: '' }]).map((item) => ({ person, item: item.title })))
    try {
      const answers = await Promise.all(
        samples.map(({ person, item }) =>
          desk.patternExample({ folderPattern: sheet.folderPattern, namePattern: sheet.namePattern, title: sheet.title, zone: sheet.zone, item, person: person.name, email: person.email, roundId: null }),
        ),
      )
      paths.value = answers.map((answer) => answer.path).filter(Boolean)
      problems.folderPattern = answers[0]?.errors.find((error) => error.field === 'folderPattern')?.detail ?? ''
      problems.namePattern = answers[0]?.errors.find((error) => error.field === 'namePattern')?.detail ?? ''
    } catch {
      paths.value = []
    }
  }

  watchDebounced(
    () => [sheet.folderPattern, sheet.namePattern, sheet.title, sheet.zone, sheet.items[0]?.title, sheet.items[1]?.title, sheet.people.length],
    () => void ask(),
    { debounce: WAIT_MILLISECONDS, immediate: true },
  )
  return { paths, problems }
}
