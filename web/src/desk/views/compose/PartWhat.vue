<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { desk, type RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say } from '../../say'
import ChecklistChoice from './ChecklistChoice.vue'
import FieldBox from './FieldBox.vue'
import SheetItemEditor from './SheetItemEditor.vue'
import { emptyItem } from './use-sheet'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose

const groups = ref<string[]>([])
onMounted(async () => (groups.value = (await desk.groups().catch(() => [])).map((one) => one.name)))

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
      :groups="groups"
      @remove="remove(n)"
      @move="(by) => move(n, by)"
    />
  </ol>
  <label class="tick"><input v-model="sheet.takesActive" type="checkbox" aria-describedby="takes-active-hint" /> {{ t.takesActive }}</label>
  <p id="takes-active-hint" class="quiet hint">{{ t.takesActiveHint }}</p>
  <div class="add">
    <button class="button" type="button" @click="sheet.items.push(emptyItem())">{{ t.addItem }}</button>
    <ChecklistChoice :sheet="sheet" />
  </div>
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
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 36px;
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
