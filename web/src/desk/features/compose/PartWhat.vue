<script setup lang="ts">
import { computed, nextTick, toRaw, useTemplateRef } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type RoundSheet, type SheetItem } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'
import { say } from '../../say'
import ChecklistChoice from './ChecklistChoice.vue'
import FieldBox from './FieldBox.vue'
import SheetItemEditor from './SheetItemEditor.vue'
import { emptyItem } from './use-sheet'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
const editors = useTemplateRef<{ focus: () => void; place: () => number }[]>('editors')

const { value: known } = useRead(['groups'], desk.groups)
const groups = computed(() => known.value?.map((one) => one.name) ?? [])

/** Puts the cursor into the name of the document at this place, from 1. */
function focus(place: number) {
  editors.value?.find((one) => one.place() === place)?.focus()
}

/** One more document, with the cursor in it. */
async function add() {
  props.sheet.items.push(emptyItem())
  await nextTick()
  focus(props.sheet.items.length)
}

/** On to the next document; after the last one, if it has a name, to one more. */
function onward(from: number) {
  if (from < props.sheet.items.length - 1) focus(from + 2)
  else if (props.sheet.items[from]!.title.trim()) void add()
}

function remove(at: number) {
  const [removed] = props.sheet.items.splice(at, 1)
  say(`${t.removed}: ${removed!.title || t.untitledItem}`, { label: text.panel.undo, run: () => props.sheet.items.splice(at, 0, removed!) })
}

/** The cursor stays with the document that moved, on the way it was moving where that goes on. */
async function move(at: number, by: number) {
  const [item] = props.sheet.items.splice(at, 1)
  props.sheet.items.splice(at + by, 0, item!)
  await nextTick()
  const now = at + by + 1
  const ways = by < 0 ? [t.up(now), t.down(now)] : [t.down(now), t.up(now)]
  ways.map((label) => document.querySelector<HTMLButtonElement>(`[aria-label="${label}"]`)).find((button) => button && !button.disabled)?.focus()
}

const keys = new WeakMap<object, number>()
let nextKey = 1

/** A document is the same one wherever it stands, and what is unfolded of it goes with it. */
function keyOf(item: SheetItem): number {
  const plain = toRaw(item)
  if (!keys.has(plain)) keys.set(plain, nextKey++)
  return keys.get(plain)!
}
</script>

<template>
  <div class="two">
    <FieldBox id="title" v-slot="{ attrs }" :label="t.title" :error="errorAt('title')" :hint="t.titleHint">
      <ElInput v-bind="attrs" v-model="sheet.title" :maxlength="limits.RoundSheet.title.longest" />
    </FieldBox>
    <FieldBox id="note" v-slot="{ attrs }" :label="t.note" :error="errorAt('note')">
      <ElInput v-bind="attrs" v-model="sheet.note" autosize type="textarea" />
    </FieldBox>
  </div>
  <h3>{{ t.items }}</h3>
  <p v-if="errorAt('items')" class="error" role="alert">{{ errorAt('items') }}</p>
  <ol>
    <li class="heads quiet" aria-hidden="true"><span>{{ t.itemTitle }}</span><span>{{ t.kinds }}</span><span>{{ t.maxFiles }}</span></li>
    <SheetItemEditor
      v-for="(item, n) in sheet.items"
      :key="keyOf(item)"
      ref="editors"
      :item="item"
      :index="n"
      :last="n === sheet.items.length - 1"
      :error-at="errorAt"
      :groups="groups"
      @remove="remove(n)"
      @move="(by) => move(n, by)"
      @more="onward(n)"
    />
  </ol>
  <ElCheckbox v-model="sheet.takesActive" aria-describedby="takes-active-hint">{{ t.takesActive }}</ElCheckbox>
  <p id="takes-active-hint" class="quiet hint">{{ t.takesActiveHint }}</p>
  <div class="add">
    <ElButton @click="add">{{ t.addItem }}</ElButton>
    <ChecklistChoice :sheet="sheet" />
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  align-items: start;
}
h3 {
  font-size: 16px;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
.heads {
  display: grid;
  grid-template-columns: minmax(150px, 1fr) 170px 170px;
  gap: 8px;
  font-size: 15px;
}
.hint {
  padding-left: 28px;
  font-size: 15px;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 10px 0 14px;
}
</style>
