<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type SheetItem } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import { choices } from '../../fields/choices'
import FileButton from '../../fields/FileButton.vue'
import { say } from '../../say'
import FieldBox from './FieldBox.vue'

const props = defineProps<{ item: SheetItem; index: number; last: boolean; groups: string[]; errorAt: (field: string) => string }>()
defineEmits<{ remove: []; move: [by: number]; more: [] }>()
const t = text.compose
const kinds = choices(text.kinds)
const archives = choices(t.archiveChoices)
const unchecked = choices(t.uncheckedChoices)
const error = (field: string) => props.errorAt(`items[${props.index}].${field}`)
const fieldId = (field: string) => `item-${props.index}-${field}`

const formProblem = ref('')
const unfolded = ref(false)
/** What is folded in opens by itself where something in it is wrong. */
const open = computed(() => unfolded.value || ['help', 'minFiles', 'maxMebibytes', 'groups', 'form'].some((field) => error(field)))
const first = useTemplateRef<{ focus: () => void }>('first')
defineExpose({ focus: () => first.value?.focus(), place: () => props.index + 1 })

async function takeForm(file: File) {
  formProblem.value = ''
  try {
    const kept = await desk.keepForm(file)
    Object.assign(props.item, { formId: kept.id, formName: kept.name })
  } catch (error) {
    formProblem.value = (error as ApiProblem).detail
  }
}

function dropForm() {
  const { formId, formName } = props.item
  Object.assign(props.item, { formId: null, formName: '' })
  say(t.removed, { label: text.panel.undo, run: () => Object.assign(props.item, { formId, formName }) })
}
</script>

<template>
  <li>
    <div class="line">
      <ElInput :id="fieldId('title')" ref="first" v-model="item.title" class="title" :maxlength="limits.SheetItem.title.longest" :aria-label="t.itemNumber(index + 1)" :placeholder="t.itemNumber(index + 1)" :aria-invalid="!!error('title')" :aria-describedby="fieldId('title-error')" @keydown.enter.prevent="$emit('more')" />
      <ElCheckbox v-model="item.required" :aria-label="`${t.required}: ${t.itemNumber(index + 1)}`">{{ t.required }}</ElCheckbox>
      <ElSelect v-model="item.kinds" class="kinds" multiple collapse-tags collapse-tags-tooltip :placeholder="t.anyKind" :aria-label="`${t.kinds}: ${t.itemNumber(index + 1)}`">
        <ElOption v-for="kind in kinds" :key="kind.value" :value="kind.value" :label="kind.label" />
      </ElSelect>
      <ElInput v-model.number="item.maxFiles" class="number" type="number" min="1" :max="limits.SheetItem.maxFiles.most" :aria-label="`${t.maxFiles}: ${t.itemNumber(index + 1)}`" :aria-invalid="!!error('maxFiles')" :aria-describedby="fieldId('max-error')" />
      <ElButton link size="small" :aria-expanded="open" :aria-label="`${t.moreOf} ${t.itemNumber(index + 1)}`" @click="unfolded = !open">{{ open ? '▾' : '▸' }} {{ t.moreOf }}</ElButton>
      <ElButton link size="small" :aria-label="t.removeItem(index + 1)" @click="$emit('remove')">✕</ElButton>
    </div>
    <p :id="fieldId('title-error')" class="error" role="alert">{{ error('title') }}</p>
    <p :id="fieldId('max-error')" class="error" role="alert">{{ error('maxFiles') || error('kinds') }}</p>
    <div v-if="open" class="folded">
      <FieldBox :id="fieldId('help')" v-slot="{ attrs }" class="whole" :label="t.itemHelp" :error="error('help')">
        <ElInput v-bind="attrs" v-model="item.help" :maxlength="limits.SheetItem.help.longest" />
      </FieldBox>
      <FieldBox :id="fieldId('min')" v-slot="{ attrs }" :label="t.minFiles" :error="error('minFiles')">
        <ElInput v-bind="attrs" v-model.number="item.minFiles" type="number" min="1" :max="limits.SheetItem.minFiles.most" />
      </FieldBox>
      <FieldBox :id="fieldId('size')" v-slot="{ attrs }" :label="t.maxSize" :error="error('maxMebibytes')">
        <ElInput v-bind="attrs" v-model.number="item.maxMebibytes" type="number" min="1" :max="limits.SheetItem.maxMebibytes.most" />
      </FieldBox>
      <FieldBox :id="fieldId('groups')" :label="t.owedBy" :error="error('groups')">
        <ElSelect :id="fieldId('groups')" v-model="item.groups" multiple filterable :placeholder="t.everybodyOwes">
          <ElOption v-for="group in groups" :key="group" :value="group" :label="group" />
        </ElSelect>
      </FieldBox>
      <FieldBox :id="fieldId('archives')" class="two" :label="t.archives">
        <ElSelect :id="fieldId('archives')" v-model="item.archives">
          <ElOption v-for="one in archives" :key="one.value" :value="one.value" :label="one.label" />
        </ElSelect>
      </FieldBox>
      <FieldBox :id="fieldId('unchecked')" :label="t.unchecked">
        <ElSelect :id="fieldId('unchecked')" v-model="item.unchecked">
          <ElOption v-for="one in unchecked" :key="one.value" :value="one.value" :label="one.label" />
        </ElSelect>
      </FieldBox>
      <div class="form">
        <template v-if="item.formId">{{ t.form }}: <a :href="`/api/forms/${item.formId}`" class="mono" download>{{ item.formName }}</a> <ElButton type="primary" link size="small" @click="dropForm">{{ t.removeForm }}</ElButton></template>
        <FileButton v-else plain small :label="t.addForm" @file="takeForm" />
        <span v-if="formProblem || error('form')" class="error" role="alert">{{ formProblem || error('form') }}</span>
        <span class="moves">
          <ElButton link size="small" :disabled="index === 0" :aria-label="t.up(index + 1)" @click="$emit('move', -1)">↑</ElButton>
          <ElButton link size="small" :disabled="last" :aria-label="t.down(index + 1)" @click="$emit('move', 1)">↓</ElButton>
        </span>
      </div>
    </div>
  </li>
</template>

<style scoped>
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.line {
  display: grid;
  grid-template-columns: minmax(150px, 1fr) auto 170px 66px auto auto;
  gap: 8px;
  align-items: center;
}
.line .el-checkbox {
  margin: 0;
}
.folded {
  display: grid;
  grid-template-columns: 110px 190px 1fr;
  gap: 0 14px;
  align-items: start;
  margin-top: 8px;
  padding: 10px 0 0 14px;
  border-left: 4px solid var(--line);
}
.two {
  grid-column: 1 / 3;
}
.whole,
.form {
  grid-column: 1 / -1;
}
.form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.moves {
  margin-left: auto;
}
</style>
