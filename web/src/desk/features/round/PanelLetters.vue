<script setup lang="ts">
import { computed } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import PlainName from '../../../shared/PlainName.vue'
import { copy } from '../../copy'
import { say } from '../../say'
import LetterList from '../post/LetterList.vue'
import { useRead } from '../../queries'

/** The letters about one basket, and the next one or why there is none. */
const props = defineProps<{ roundId: number; basketId: number }>()
const t = text.post
const { value: letters } = useRead(['letters-of', props.basketId], () => desk.lettersOf(props.basketId), { on: (event) => event.roundId === props.roundId })

const { value: messages } = useRead(['inward-of', props.basketId], () => desk.inward(true, '', props.basketId, undefined), { on: (event) => event.type === 'letter' })
const { value: way } = useRead(['mail-way', props.basketId], () => desk.mailWay(props.basketId))

async function copyAddress() {
  if (await copy(way.value!.address)) say(text.inward.copied)
}

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
    <template v-if="messages?.messages.length">
      <h4>{{ text.inward.messages }}</h4>
      <ul>
        <li v-for="one in messages.messages" :key="one.id"><RouterLink :to="{ path: '/post/inward', query: { message: one.id } }"><PlainName :name="one.subject || text.inward.noSubject" /></RouterLink> <span class="quiet">{{ text.inward.kinds[one.kind] }}, {{ dayAndTime(one.at) }}</span></li>
      </ul>
    </template>
    <p v-if="way?.address" class="quiet way">
      {{ text.inward.way }}: {{ text.inward.wayAddress(way.address) }} <ElButton type="primary" link size="small" @click="copyAddress">{{ text.inward.copyAddress }}</ElButton> {{ text.inward.wayCode(way.code) }}
    </p>
  </section>
</template>

<style scoped>
h3 {
  padding-top: 12px;
  border-top: 1px solid var(--line);
  font-size: 16px;
}
h4 {
  margin: 8px 0 0;
  font-size: 15px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.way {
  overflow-wrap: anywhere;
  font-size: 15px;
}
</style>
