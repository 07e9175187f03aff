<script setup lang="ts">
import type { ListedLetter } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import { stateWords } from './letter-words'

/** Letters to one person, each leading to its text. */
defineProps<{ letters: ListedLetter[]; rounds?: boolean }>()
const t = text.post
</script>

<template>
  <ul class="letters">
    <li v-for="letter in letters" :key="letter.id" :class="letter.state">
      <RouterLink :to="{ name: 'post', query: { letter: letter.id, find: letter.name } }">{{ t.kinds[letter.kind] }}</RouterLink>
      <span v-if="rounds" class="quiet">{{ ' ' + (letter.parcel ?? letter.about.map((one) => one.round).join(', ')) }}</span>
      <span class="quiet state">{{ ' ' + stateWords(letter) }}</span><span v-if="letter.openedAt" class="quiet">{{ `, ${t.opened(dayAndTime(letter.openedAt))}` }}</span>
    </li>
  </ul>
</template>

<style scoped>
.letters {
  margin: 4px 0 10px;
  padding: 0;
  list-style: none;
}
li {
  padding: 2px 0;
}
.FAILED .state,
.BOUNCED .state,
.UNCERTAIN .state {
  color: var(--rowan);
}
</style>
