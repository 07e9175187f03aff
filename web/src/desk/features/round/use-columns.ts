import { computed } from 'vue'
import { useRoute, type LocationQueryRaw } from 'vue-router'

/** Columns besides the items that can be shown or hidden. */
export const FACTS = ['organisation', 'reference', 'groups', 'deadline', 'files', 'last'] as const
export type Fact = (typeof FACTS)[number]

const USUAL: Fact[] = ['files', 'last']
const NONE = 'none'

/** Which columns of a round's board are shown, as the address says. */
export function useColumns(put: (change: LocationQueryRaw) => void) {
  const route = useRoute()
  const listed = (name: string) => (typeof route.query[name] === 'string' ? route.query[name].split(',') : undefined)

  const facts = computed(() => {
    const named = listed('columns')
    return named ? FACTS.filter((fact) => named.includes(fact)) : USUAL
  })
  const hiddenItems = computed(() => (listed('hidden') ?? []).map(Number))

  function toggleFact(fact: Fact) {
    const now = facts.value.includes(fact) ? facts.value.filter((one) => one !== fact) : [...facts.value, fact]
    put({ columns: now.length === 0 ? NONE : now.length === USUAL.length && USUAL.every((one) => now.includes(one)) ? undefined : now.join(',') })
  }

  function toggleItem(id: number) {
    const now = hiddenItems.value.includes(id) ? hiddenItems.value.filter((one) => one !== id) : [...hiddenItems.value, id]
    put({ hidden: now.join(',') || undefined })
  }

  return { facts, hiddenItems, toggleFact, toggleItem }
}
