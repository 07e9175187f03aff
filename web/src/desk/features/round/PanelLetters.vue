<script setup lang="ts">
import { computed, onMounted, watch } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import LetterList from '../post/LetterList.vue'
import { useLoaded } from '../../use-loaded'

/** The letters about one basket, and the next one or why there is none. */
const props = defineProps<{ basketId: number; touched: number }>()
const t = text.post
const { value: letters, load } = useLoaded(() => desk.lettersOf(props.basketId))
onMounted(load)
watch(() => props.touched, () => void load())

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
