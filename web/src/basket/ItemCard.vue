<script setup lang="ts">
import { computed, ref } from 'vue'
import { text } from '../text/sender'
import type { ChosenFile } from './chosen-file'
import { filesOfDrop } from './choosing'
import ChosenRow from './ChosenRow.vue'
import { countWords, kindsWords, longDayAndTime, sizeWords } from './said'
import type { PageItem } from './use-page'

const props = defineProps<{ item: PageItem; items: PageItem[]; chosen: ChosenFile[]; notice: string; busy: boolean; askedBy: string; stays?: boolean }>()
const emit = defineEmits<{ add: [files: File[]]; remove: [file: ChosenFile]; cancel: [file: ChosenFile]; move: [file: ChosenFile, item: PageItem]; form: []; retry: [] }>()
const over = ref(false)
const opened = ref(false)
const endingsShown = ref(false)
const tookPhoto = ref(false)
const accept = computed(() => [...props.item.endings, ...(props.item.endings.length > 0 && props.item.opensArchives ? ['zip'] : [])].map((ending) => '.' + ending).join(','))
/** A device for fingers, which nearly always has a camera that the browser can open by itself, and no mouse to drag with. */
const touch = matchMedia('(pointer: coarse)').matches
const takesPhotos = computed(() => props.item.endings.length === 0 || props.item.endings.includes('jpg'))
const takesFolders = !touch && 'webkitdirectory' in HTMLInputElement.prototype
const full = computed(() => props.item.arrived >= props.item.maxFiles)
/** What is satisfied, or need not be sent, is one line until somebody wants more of it. */
const folded = computed(() => !props.stays && !opened.value && props.chosen.length === 0 && !props.notice && (props.item.done || props.item.excused))

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  emit('add', Array.from(input.files ?? []))
  input.value = ''
}

function photographed(event: Event) {
  tookPhoto.value = true
  picked(event)
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
    :class="{ over, done: item.done, folded }"
    :aria-labelledby="`item-${item.number}`"
    @dragover.prevent.stop="over = !item.excused"
    @dragleave="over = false"
    @drop.prevent.stop="dropped"
    @paste="pasted"
  >
    <header>
      <h2 :id="`item-${item.number}`">
        <span v-if="item.done" class="tick" aria-hidden="true">✓</span> {{ item.title }}
        <span v-if="!item.done && !item.excused" class="mark" :class="{ must: item.required }">{{ item.required ? text.required : text.optional }}</span>
      </h2>
      <button v-if="!stays && (item.done || item.excused) && chosen.length === 0" class="button plain small" type="button" :aria-expanded="!folded" :aria-label="`${folded ? text.show : text.fold}: ${item.title}`" @click="opened = !opened">
        {{ folded ? text.show : text.fold }}
      </button>
    </header>
    <p v-if="item.excused" class="quiet">{{ text.excused }}</p>
    <p v-if="item.returnedBecause !== null" class="returned">
      <strong>{{ text.returned }}</strong> {{ item.returnedBecause }}
    </p>
    <p v-if="item.malware > 0" class="returned">{{ text.malware(item.malware) }}</p>
    <p v-if="item.arrived > 0 && item.lastArrival" class="arrived">{{ text.arrived(item.arrived, longDayAndTime(item.lastArrival)) }}</p>
    <template v-if="!folded">
      <p v-if="item.help">{{ item.help }}</p>
      <p v-if="item.form"><button class="link" type="button" @click="emit('form')">{{ text.takeForm(item.form) }}</button></p>
      <template v-if="!item.excused">
        <p class="quiet terms">
          {{ countWords(item) }}, {{ kindsWords(item) }}<template v-if="item.endings.length > 0">{{ ' ' }}<button class="link which" type="button" :aria-expanded="endingsShown" :aria-label="`${kindsWords(item)}: ${text.whichOnes}`" @click="endingsShown = !endingsShown">{{ text.whichOnes }}</button></template>,
          {{ text.upTo(sizeWords(item.maxBytes)) }}
        </p>
        <p v-if="item.opensArchives" class="quiet terms">{{ text.opensZip }}</p>
        <p v-if="endingsShown" class="quiet terms">{{ text.endings(item.endings.map((one) => '.' + one).join(' ')) }}</p>

        <ul v-if="chosen.length > 0" class="chosen">
          <ChosenRow v-for="one in chosen" :key="one.id" :one="one" :busy="busy" :items="items" @remove="emit('remove', one)" @cancel="emit('cancel', one)" @retry="emit('retry')" @move="(to) => emit('move', one, to)" @pick="(files) => emit('add', files)" />
        </ul>
        <p v-if="item.arrived > 0 && !stays" class="quiet wrong">{{ full ? text.wrongFull(askedBy) : text.wrong(askedBy) }}</p>
        <p v-if="notice" class="error" role="alert">{{ notice }}</p>

        <div v-if="!full" class="choose">
          <label class="button" :class="{ off: busy }">
            <input type="file" class="hidden-text" :multiple="item.maxFiles > 1" :accept="accept" :disabled="busy" :aria-label="text.choose(item.title)" @change="picked" />
            {{ text.chooseShort }}
          </label>
          <label v-if="touch && takesPhotos" class="button" :class="{ off: busy }">
            <input type="file" class="hidden-text" accept="image/*" capture="environment" :disabled="busy" :aria-label="`${tookPhoto ? text.photoAgain : text.photo}: ${item.title}`" @change="photographed" />
            {{ tookPhoto && item.maxFiles > 1 ? text.photoAgain : text.photo }}
          </label>
          <label v-if="takesFolders && item.maxFiles > 2" class="button" :class="{ off: busy }">
            <input type="file" class="hidden-text" webkitdirectory multiple :disabled="busy" :aria-label="`${text.folder}: ${item.title}`" @change="picked" />
            {{ text.folder }}
          </label>
          <span v-if="!touch" class="quiet">{{ text.dropHere }}</span>
        </div>
      </template>
    </template>
  </section>
</template>

<style scoped>
.link {
  padding: 4px 0;
  border: 0;
  background: none;
  color: var(--leaf-deep);
  text-align: start;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
.which {
  min-height: 24px;
  padding: 0 2px;
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
  border-inline-start: 4px solid var(--moss);
}
.card.folded {
  gap: 0;
  padding: 8px 16px;
}
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 12px;
  align-items: center;
}
h2 {
  font-size: 19px;
  overflow-wrap: anywhere;
}
.folded h2 {
  font-size: 17px;
}
.tick {
  color: var(--leaf-deep);
}
.mark {
  margin-inline-start: 6px;
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
  border-inline-start: 4px solid var(--rowan);
  background: var(--rowan-tint);
}
.arrived {
  color: var(--leaf-deep);
}
.folded .arrived {
  font-size: 15px;
}
.chosen {
  margin: 4px 0;
  padding: 0;
  list-style: none;
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
</style>
