<script setup lang="ts">
import { computed } from 'vue'
import { coloursOf } from '../../../light/face'
import OakMark from '../../../shared/OakMark.vue'
import { text } from '../../../text/desk'

/** How a face looks on what people outside get, drawn with the same colours and in the same order as there. */
const props = defineProps<{ face: { name: string; colour: string; background: string; logo: string; contact: string; privacy: string }; part: 'page' | 'pickUp' | 'letter' | 'sheet' }>()
const t = text.brand
const HEX = /^#?[0-9a-fA-F]{6}$/
const colour = (typed: string) => (HEX.test(typed) ? `#${typed.replace('#', '')}` : '')
const style = computed(() => coloursOf({ colour: colour(props.face.colour), background: colour(props.face.background) }))
const foot = computed(() => [props.face.contact, props.face.privacy].filter(Boolean))
</script>

<template>
  <div class="face" :class="`as-${part}`" :style="style">
    <template v-if="part === 'letter'">
      <p class="line" aria-hidden="true" />
      <p class="letter">{{ t.sampleLetter }}</p>
      <p><span class="link">{{ t.sampleLink }}</span></p>
      <p>{{ face.name }}</p>
    </template>
    <template v-else>
      <p class="office"><img v-if="face.logo" :src="`/brand/${face.logo}.png`" alt="" /><OakMark v-else :size="30" /> <span>{{ part === 'pickUp' ? t.hands(face.name) : t.asks(face.name) }}</span></p>
      <p class="title">{{ t.sampleTitle }}</p>
      <p class="deadline">{{ part === 'pickUp' ? t.sampleUntil : t.sampleDeadline }}</p>
      <p class="card"><strong>{{ part === 'pickUp' ? t.sampleFile : t.sampleItem }}</strong></p>
      <p v-if="part !== 'sheet'" class="act">{{ part === 'pickUp' ? t.sampleTake : t.sampleSend }}</p>
    </template>
    <div v-if="foot.length > 0" class="foot"><p v-for="line in foot" :key="line">{{ line }}</p></div>
  </div>
</template>

<style scoped>
.face {
  max-width: 420px;
  margin-top: 14px;
  padding: 20px;
  border: 1px solid var(--line-strong);
  border-radius: 14px;
  background: var(--paper);
  overflow-wrap: anywhere;
}
.as-letter,
.as-sheet {
  border-radius: 0;
  background: #fff;
}
.line {
  margin: -20px -20px 16px;
  border-top: 4px solid var(--leaf);
}
.letter {
  white-space: pre-line;
}
.link {
  color: #0645ad;
  text-decoration: underline;
}
.office {
  display: flex;
  gap: 10px;
  align-items: center;
  color: var(--oak);
}
.as-sheet .office {
  padding-bottom: 8px;
  border-bottom: 2px solid var(--oak);
}
.office img {
  max-width: 200px;
  max-height: 56px;
}
.title {
  margin: 10px 0;
  font: 600 24px var(--heading);
}
.deadline {
  padding: 2px 0 2px 12px;
  border-left: 4px solid var(--leaf);
}
.card {
  margin: 14px 0;
  padding: 12px;
  border: 1px solid var(--line);
  background: var(--card);
}
.act {
  padding: 10px;
  border-radius: var(--corner);
  background: var(--leaf);
  color: var(--card);
  text-align: center;
}
.foot {
  margin-top: 18px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
  color: var(--slate);
  font-size: 15px;
}
</style>
