<script setup lang="ts">
import { computed } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import LetterList from '../post/LetterList.vue'
import { useRead } from '../../queries'

/** The letters about one basket, and the next one or why there is none. */
const props = defineProps<{ roundId: number; basketId: number }>()
const t = text.post
const { value: letters } = useRead(['letters-of', props.basketId], () => desk.lettersOf(props.basketId), { on: (event) => event.roundId === props.roundId })

const next = computed(() => {
  if (!letters.value) return ''
  const { at, kind, reason } = letters.value.next
  if (at && kind) return t.next(t.kinds[kind]!.toLowerCase(), dayAndTime(at))
  if (!letters.value.planned) return t.noPlan
  return reason ? t.noNext(t.reasons[reason] ?? reason) : t.noMore
})
</script>

<template>
  <section>
    <h3>{{ t.letters }}</h3>
    <p class="quiet">{{ next }}</p>
    <LetterList v-if="letters" :letters="letters.letters" />
  </section>
</template>

<style scoped>
h3 {
  padding-top: 12px;
  border-top: 1px solid var(--line);
  font-size: 16px;
}
</style>
