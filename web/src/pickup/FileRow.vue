<script setup lang="ts">
import { computed, ref } from 'vue'
import { sizeWords } from '../light/said'
import { text } from '../text/pickup'
import LookAt from './LookAt.vue'
import type { OfferedFile } from './use-pick-up'

/** One file: its name and size, how often it was taken, and the ways to it. */
const props = defineProps<{ file: OfferedFile; most: number | null; choosing: boolean; chosen: boolean; href: string; look: string }>()
const emit = defineEmits<{ choose: [on: boolean]; take: [] }>()
const looking = ref(false)
const usedUp = computed(() => props.most !== null && props.file.taken >= props.most)
const standing = computed(() => (props.file.gone ? text.gone : usedUp.value ? text.usedUp : props.file.taken === 0 ? '' : props.most === null ? text.taken : text.takenTimes(props.file.taken, props.most)))
</script>

<template>
  <li :class="{ done: file.taken > 0, gone: file.gone }">
    <div class="line">
      <input v-if="choosing" type="checkbox" :checked="chosen" :disabled="file.gone || usedUp" :aria-label="text.chooseOne(file.name)" @change="emit('choose', ($event.target as HTMLInputElement).checked)" />
      <span class="what">
        <bdi class="name">{{ file.name }}</bdi>
        <span class="quiet">{{ sizeWords(file.bytes) }}<template v-if="standing"> · {{ standing }}</template></span>
      </span>
      <span v-if="!file.gone" class="ways">
        <button v-if="file.look !== 'NONE'" class="button small" type="button" :aria-expanded="looking" :aria-label="looking ? `${text.fold}: ${file.name}` : text.lookNamed(file.name)" @click="looking = !looking">{{ looking ? text.fold : text.look }}</button>
        <a v-if="!usedUp" class="button small" :href="href" :aria-label="text.takeNamed(file.name)" download @click="emit('take')">{{ text.take }}</a>
      </span>
    </div>
    <LookAt v-if="looking" :file="file" :url="look" />
  </li>
</template>

<style scoped>
li {
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
li:first-child {
  border-top: 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
input {
  width: 22px;
  height: 22px;
  flex: none;
  accent-color: var(--leaf);
}
.what {
  display: grid;
  flex: 1 1 200px;
  min-width: 0;
}
.name {
  font-family: var(--mono);
  font-size: 15px;
  overflow-wrap: anywhere;
}
.done .name::after {
  content: ' ✓' / '';
  color: var(--leaf);
  font-family: var(--text);
}
.gone .name {
  color: var(--slate);
  text-decoration: line-through;
}
.ways {
  display: flex;
  gap: 8px;
}
</style>
