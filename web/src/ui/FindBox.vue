<script setup lang="ts" generic="T extends { key: string }">
import { nextTick, onScopeDispose, ref, shallowRef, useId } from 'vue'
import { text } from '../text/desk'

/** A field that finds things by a few letters: a combobox with a list, as the ARIA Authoring Practices describe it. The slot draws one thing found. */
const props = defineProps<{ id?: string; label: string; placeholder?: string; none?: string; find: (words: string) => Promise<T[]> }>()
const emit = defineEmits<{ pick: [choice: T] }>()
const WAIT_MILLISECONDS = 200
const list = useId()
const typed = ref('')
const found = shallowRef<T[]>([])
const open = ref(false)
const at = ref(0)
let timer = 0
let asked = 0
onScopeDispose(() => clearTimeout(timer))

function look() {
  clearTimeout(timer)
  if (!typed.value.trim()) return close()
  timer = window.setTimeout(async () => {
    const mine = ++asked
    const all = await props.find(typed.value).catch(() => [])
    // A later question may have been answered already.
    if (mine !== asked || !typed.value.trim()) return
    found.value = all
    at.value = 0
    open.value = true
  }, WAIT_MILLISECONDS)
}

function close() {
  open.value = false
  found.value = []
}

async function move(by: number) {
  if (!open.value) return look()
  at.value = (at.value + by + found.value.length) % Math.max(1, found.value.length)
  await nextTick()
  document.getElementById(`${list}-${at.value}`)?.scrollIntoView({ block: 'nearest' })
}

function pick(choice: T | undefined) {
  if (!choice) return
  typed.value = ''
  asked++
  close()
  emit('pick', choice)
}
</script>

<template>
  <div class="find-box" @focusout="!($event.currentTarget as HTMLElement).contains($event.relatedTarget as Node) && close()">
    <input
      :id="id"
      v-model="typed"
      class="input"
      type="text"
      role="combobox"
      autocomplete="off"
      spellcheck="false"
      aria-autocomplete="list"
      :aria-label="label"
      :aria-expanded="open"
      :aria-controls="list"
      :aria-activedescendant="open && found.length ? `${list}-${at}` : undefined"
      :placeholder="placeholder ?? label"
      @input="look"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="pick(found[at])"
      @keydown.esc.stop="close()"
    />
    <ul v-show="open" :id="list" role="listbox" :aria-label="text.found" class="found">
      <li v-for="(choice, n) in found" :id="`${list}-${n}`" :key="choice.key" role="option" :aria-selected="n === at" @pointerdown.prevent @click="pick(choice)"><slot :choice="choice" /></li>
      <li v-if="found.length === 0 && none" class="quiet" role="option" aria-selected="false" aria-disabled="true">{{ none }}</li>
    </ul>
  </div>
</template>

<style scoped>
.find-box {
  position: relative;
}
.found {
  position: absolute;
  z-index: 20;
  min-width: 100%;
  max-height: 60vh;
  margin: 2px 0 0;
  padding: 4px 0;
  overflow: auto;
  border: 1px solid var(--line-strong);
  background: var(--card);
  list-style: none;
}
li {
  padding: 6px 14px;
  cursor: pointer;
}
li[aria-selected='true'],
li:hover {
  background: var(--tint);
}
</style>
