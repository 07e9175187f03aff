<script setup lang="ts">
import { computed, onScopeDispose, ref, watch } from 'vue'
import { text } from '../text/sender'
import type { ChosenFile } from './chosen-file'
import { pagesOf } from './pages-of'
import { sizeWords } from './said'
import type { PageItem } from './use-page'

/** One chosen file: what it is, how far it is, and what can be done with it. */
const props = defineProps<{ one: ChosenFile; busy: boolean; items: PageItem[] }>()
const emit = defineEmits<{ remove: []; cancel: []; retry: []; move: [item: PageItem]; pick: [files: File[]] }>()
const picture = ref('')
const pages = ref(0)

watch(() => props.one.file, async (file) => {
  if (picture.value) URL.revokeObjectURL(picture.value)
  picture.value = file?.type.startsWith('image/') ? URL.createObjectURL(file) : ''
  pages.value = file ? await pagesOf(file) : 0
}, { immediate: true })
onScopeDispose(() => picture.value && URL.revokeObjectURL(picture.value))

const movable = computed(() => props.items.length > 1 && !props.busy && ['chosen', 'failed', 'pick'].includes(props.one.state))

function moved(event: Event) {
  emit('move', props.items.find((item) => item.number === Number((event.target as HTMLSelectElement).value))!)
}

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  emit('pick', Array.from(input.files ?? []))
  input.value = ''
}
</script>

<template>
  <li :class="{ bad: one.problem }">
    <!-- What the browser cannot draw, such as HEIC in most, is simply not shown; the file itself is sent as it is. -->
    <img v-if="picture" class="picture" :src="picture" alt="" @error="picture = ''" />
    <span class="what">
      <bdi class="mono">{{ one.name }}</bdi>
      <span class="quiet size">{{ sizeWords(one.size) }}<template v-if="pages > 0">, {{ text.pages(pages) }}</template></span>
    </span>
    <span v-if="one.state === 'there'" class="there">✓ {{ text.there }}</span>
    <button v-else-if="busy && (one.state === 'sending' || one.state === 'waiting')" class="button plain small" type="button" :aria-label="`${text.cancel}: ${one.name}`" @click="emit('cancel')">{{ text.cancel }}</button>
    <label v-if="one.state === 'pick'" class="button small again">
      <input type="file" class="hidden-text" :aria-label="text.pickAgain(one.name)" @change="picked" />
      {{ text.chooseShort }}
    </label>
    <button v-if="one.state === 'failed'" class="button plain small" type="button" :aria-label="`${text.retry}: ${one.name}`" @click="emit('retry')">{{ text.retry }}</button>
    <button v-if="!busy && one.state !== 'there' && one.state !== 'sending'" class="button plain small" type="button" :aria-label="text.remove(one.name)" @click="emit('remove')">{{ text.removeShort }}</button>
    <label v-if="movable" class="belongs">
      <span class="hidden-text">{{ text.belongsTo(one.name) }}</span>
      <select class="input" :value="one.item.number" @change="moved">
        <option v-for="item in items" :key="item.number" :value="item.number">{{ item.title }}</option>
      </select>
    </label>
    <progress v-if="one.state === 'sending' || one.state === 'waiting'" :value="one.sent" :max="one.size" :aria-label="one.name"></progress>
    <p v-if="one.problem" class="error">{{ one.problem }}</p>
  </li>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: center;
  min-height: 44px;
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
.picture {
  width: 44px;
  height: 44px;
  object-fit: cover;
  image-orientation: from-image;
  border-radius: var(--corner);
}
.what {
  flex: 1 1 160px;
  min-width: 0;
}
.size {
  display: block;
  font-size: 15px;
}
.there {
  color: var(--leaf-deep);
}
.again {
  position: relative;
}
.belongs {
  flex: 0 1 100%;
}
.belongs .input {
  width: auto;
  max-width: 100%;
  min-height: 36px;
  font-size: 15px;
}
progress {
  flex: 1 0 100%;
  height: 8px;
  accent-color: var(--leaf);
}
.error {
  flex: 1 0 100%;
}
</style>
