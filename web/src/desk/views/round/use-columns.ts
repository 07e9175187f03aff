import { computed, ref, watch } from 'vue'

/** Columns besides the items that can be shown or hidden. */
export const FACTS = ['organisation', 'reference', 'groups', 'deadline', 'files', 'last'] as const
export type Fact = (typeof FACTS)[number]

interface Chosen {
  facts: Fact[]
  hiddenItems: number[]
}

/** Which columns of a round's board are shown; kept in this browser. */
export function useColumns(roundId: number) {
  const key = `oak-columns-${roundId}`
  const chosen = ref<Chosen>(read(key))
  watch(chosen, (now) => localStorage.setItem(key, JSON.stringify(now)), { deep: true })

  const facts = computed(() => FACTS.filter((fact) => chosen.value.facts.includes(fact)))

  function toggleFact(fact: Fact) {
    const { facts } = chosen.value
    chosen.value.facts = facts.includes(fact) ? facts.filter((one) => one !== fact) : [...facts, fact]
  }

  function toggleItem(id: number) {
    const { hiddenItems } = chosen.value
    chosen.value.hiddenItems = hiddenItems.includes(id) ? hiddenItems.filter((one) => one !== id) : [...hiddenItems, id]
  }

  return { chosen, facts, toggleFact, toggleItem }
}

function read(key: string): Chosen {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? '') as Chosen
    return { facts: kept.facts.filter((fact) => FACTS.includes(fact)), hiddenItems: kept.hiddenItems }
  } catch {
    return { facts: ['files', 'last'], hiddenItems: [] }
  }
}
