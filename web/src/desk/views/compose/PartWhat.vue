<script setup lang="ts">
import type { RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say } from '../../say'
import FieldBox from './FieldBox.vue'
import SheetItemEditor from './SheetItemEditor.vue'
import { emptyItem } from './use-sheet'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose

function remove(at: number) {
  const [removed] = props.sheet.items.splice(at, 1)
  say(`${t.removed}: ${removed!.title || t.untitledItem}`, { label: text.panel.undo, run: () => props.sheet.items.splice(at, 0, removed!) })
}

function move(at: number, by: number) {
  const [item] = props.sheet.items.splice(at, 1)
  props.sheet.items.splice(at + by, 0, item!)
}
</script>

<template>
  <FieldBox id="title" v-slot="{ attrs }" :label="t.title" :error="errorAt('title')" :hint="t.titleHint">
    <input v-bind="attrs" v-model="sheet.title" class="input" maxlength="200" />
  </FieldBox>
  <FieldBox id="note" v-slot="{ attrs }" :label="t.note" :error="errorAt('note')">
    <textarea v-bind="attrs" v-model="sheet.note" class="input" rows="3"></textarea>
  </FieldBox>
  <h3>{{ t.items }}</h3>
  <p v-if="errorAt('items')" class="error" role="alert">{{ errorAt('items') }}</p>
  <ol>
    <SheetItemEditor
      v-for="(item, n) in sheet.items"
      :key="n"
      :item="item"
      :index="n"
      :last="n === sheet.items.length - 1"
      :error-at="errorAt"
      @remove="remove(n)"
      @move="(by) => move(n, by)"
    />
  </ol>
  <button class="button add" type="button" @click="sheet.items.push(emptyItem())">{{ t.addItem }}</button>
</template>

<style scoped>
h3 {
  font-size: 16px;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
.add {
  margin: 10px 0 14px;
}
</style>
