<script setup lang="ts">
import { computed, ref } from 'vue'
import { text } from '../text/basket'
import { sizeWords } from '../shared/size'
import { longDayAndTime } from '../shared/time'
import { filesOfDrop } from './choosing'
import type { PageItem } from './use-page'
import type { ChosenFile } from './use-sending'

const props = defineProps<{ item: PageItem; chosen: ChosenFile[]; notice: string; busy: boolean; askedBy: string }>()
const emit = defineEmits<{ add: [files: File[]]; remove: [file: ChosenFile]; cancel: [file: ChosenFile]; form: []; retry: [] }>()
const over = ref(false)
const accept = computed(() => props.item.endings.map((ending) => '.' + ending).join(','))
/** A device for fingers, which nearly always has a camera that the browser can open by itself. */
const camera = matchMedia('(pointer: coarse)').matches
const takesPhotos = computed(() => props.item.endings.length === 0 || props.item.endings.includes('jpg'))
const full = computed(() => props.item.arrived >= props.item.maxFiles)

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  emit('add', Array.from(input.files ?? []))
  input.value = ''
}

async function dropped(event: DragEvent) {
  over.value = false
  if (event.dataTransfer && !props.busy) emit('add', await filesOfDrop(event.dataTransfer))
}

function pasted(event: ClipboardEvent) {
  const files = Array.from(event.clipboardData?.files ?? [])
  if (files.length > 0 && !props.busy) emit('add', files)
}
</script>

<template>
  <section
    class="card"
    :class="{ over, done: item.done }"
    :aria-labelledby="`item-${item.number}`"
    @dragover.prevent="over = !item.excused"
    @dragleave="over = false"
    @drop.prevent="dropped"
    @paste="pasted"
  >
    <h2 :id="`item-${item.number}`">
      {{ item.title }} <span class="mark" :class="{ must: item.required && !item.excused }">{{ item.required ? text.required : text.optional }}</span>
    </h2>
    <p v-if="item.help">{{ item.help }}</p>
    <p v-if="item.form"><button class="link" type="button" @click="emit('form')">{{ text.takeForm(item.form) }}</button></p>
    <p v-if="item.excused" class="quiet">{{ text.excused }}</p>
    <template v-else>
      <p class="quiet terms">
        {{ text.files(item.minFiles, item.maxFiles) }}, {{ item.endings.length ? text.kinds(item.endings) : text.anyKind }}, {{ text.upTo(sizeWords(item.maxBytes)) }}
      </p>
      <p v-if="item.returnedBecause !== null" class="returned">
        <strong>{{ text.returned }}</strong> {{ item.returnedBecause }}
      </p>
      <p v-if="item.arrived > 0 && item.lastArrival" class="arrived">{{ text.arrived(item.arrived, longDayAndTime(item.lastArrival)) }}</p>

      <ul v-if="chosen.length > 0" class="chosen">
        <li v-for="one in chosen" :key="one.key" :class="{ bad: one.problem }">
          <span class="mono name">{{ one.file.name }}</span>
          <span class="quiet size">{{ sizeWords(one.file.size) }}</span>
          <span v-if="one.state === 'there'" class="there">✓ {{ text.there }}</span>
          <button v-else-if="one.state === 'sending' || (busy && one.state === 'waiting')" class="button plain small" type="button" :aria-label="`${text.cancel}: ${one.file.name}`" @click="emit('cancel', one)">
            {{ text.cancel }}
          </button>
          <button v-else-if="one.state === 'failed'" class="button plain small" type="button" :aria-label="`${text.retry}: ${one.file.name}`" @click="emit('retry')">{{ text.retry }}</button>
          <button v-if="one.state === 'failed' || one.state === 'chosen' || (!busy && one.state === 'waiting')" class="button plain small" type="button" :aria-label="text.remove(one.file.name)" @click="emit('remove', one)">{{ text.removeShort }}</button>
          <progress v-if="one.state === 'sending' || one.state === 'waiting'" :value="one.sent" :max="one.file.size" :aria-label="one.file.name"></progress>
          <p v-if="one.problem" class="error">{{ one.problem }}</p>
        </li>
      </ul>
      <p v-if="item.arrived > 0" class="quiet wrong">{{ full ? text.wrongFull(askedBy) : text.wrong(askedBy) }}</p>
      <p v-if="notice" class="error" role="alert">{{ notice }}</p>

      <div v-if="!full" class="choose">
        <label class="button" :class="{ off: busy }">
          <input type="file" class="hidden-text" :multiple="item.maxFiles > 1" :accept="accept" :disabled="busy" :aria-label="text.choose(item.title)" @change="picked" />
          {{ text.chooseShort }}
        </label>
        <label v-if="camera && takesPhotos" class="button" :class="{ off: busy }">
          <input type="file" class="hidden-text" accept="image/*" capture="environment" :disabled="busy" :aria-label="`${text.photo}: ${item.title}`" @change="picked" />
          {{ text.photo }}
        </label>
        <label v-if="item.maxFiles > 2" class="button folder" :class="{ off: busy }">
          <input type="file" class="hidden-text" webkitdirectory multiple :disabled="busy" :aria-label="`${text.folder}: ${item.title}`" @change="picked" />
          {{ text.folder }}
        </label>
        <span class="quiet drag">{{ text.dropHere }}</span>
      </div>
    </template>
  </section>
</template>

<style scoped>
.link {
  padding: 4px 0;
  border: 0;
  background: none;
  color: var(--leaf-deep);
  text-align: left;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
.card {
  display: grid;
  gap: 8px;
  margin-bottom: 14px;
  padding: 16px;
  border: 1px solid var(--line);
  border-radius: var(--corner);
  background: var(--card);
}
.card.over {
  border-color: var(--leaf);
  background: var(--leaf-tint);
}
.card.done {
  border-left: 4px solid var(--moss);
}
h2 {
  font-size: 19px;
}
.mark {
  margin-left: 6px;
  color: var(--slate);
  font: 400 15px var(--text);
}
.mark.must {
  color: var(--acorn-text);
}
.terms {
  font-size: 15px;
}
.returned {
  padding: 8px 12px;
  border-left: 4px solid var(--rowan);
  background: var(--rowan-tint);
}
.arrived {
  color: var(--leaf-deep);
}
.chosen {
  display: grid;
  gap: 0;
  margin: 4px 0;
  padding: 0;
  list-style: none;
}
.chosen li {
  display: grid;
  grid-template-columns: 1fr auto auto auto;
  gap: 2px 12px;
  align-items: center;
  min-height: 44px;
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
.chosen progress,
.chosen .error {
  grid-column: 1 / -1;
}
.chosen progress {
  width: 100%;
  height: 8px;
  accent-color: var(--leaf);
}
.size {
  font-size: 15px;
  white-space: nowrap;
}
.there {
  color: var(--leaf-deep);
}
.choose {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
}
.choose label {
  position: relative;
}
.choose label:focus-within {
  outline: 3px solid var(--oak);
  outline-offset: 2px;
}
.off {
  color: var(--slate);
  cursor: default;
}
@media (hover: none) {
  .drag,
  .folder {
    display: none;
  }
}
</style>
