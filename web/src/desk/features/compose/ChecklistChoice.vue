<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type RoundSheet, type Schemas } from '../../../api/desk'
import { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import NamedMenu from '../../fields/NamedMenu.vue'
import { useRead } from '../../queries'
import { say } from '../../say'

/** Takes items from a kept checklist, or keeps this sheet as a checklist or a template. */
const props = defineProps<{ sheet: RoundSheet }>()
const t = text.templates
const { value: templates, load } = useRead(['templates'], desk.templates)
const keeping = ref<'CHECKLIST' | 'ROUND'>()
const name = ref('')
const problem = ref<ApiProblem>()
const nameField = useTemplateRef('nameField')
const checklists = computed(() => templates.value?.filter((one) => one.kind === 'CHECKLIST') ?? [])

watch(keeping, async (what) => {
  if (!what) return
  await nextTick()
  nameField.value?.focus()
})

function take(kept: Schemas['KeptTemplate']) {
  const fresh = JSON.parse(JSON.stringify(kept.sheet.items)) as RoundSheet['items']
  const blank = props.sheet.items.length === 1 && !props.sheet.items[0]!.title
  props.sheet.items.splice(blank ? 0 : props.sheet.items.length, blank ? 1 : 0, ...fresh)
}

async function keep(replace: boolean) {
  try {
    await desk.keepTemplate(keeping.value!, name.value, JSON.parse(JSON.stringify(props.sheet)), replace)
    keeping.value = undefined
    problem.value = undefined
    name.value = ''
    say(t.kept)
    await load()
  } catch (error) {
    problem.value = error as ApiProblem
  }
}
</script>

<template>
  <NamedMenu v-if="checklists.length > 0" :label="t.useChecklist" :names="checklists.map((one) => one.name)" @pick="(n) => take(checklists[n]!)" />
  <ElButton type="primary" link @click="keeping = 'CHECKLIST'">{{ t.keepChecklist }}</ElButton>
  <ElButton type="primary" link @click="keeping = 'ROUND'">{{ t.keepRound }}</ElButton>
  <div v-if="keeping" class="keep" @keydown.enter.prevent="keep(false)" @keydown.esc="keeping = undefined">
    <label for="template-name">{{ t.name }}</label>
    <ElInput id="template-name" ref="nameField" v-model="name" :maxlength="limits.Keep.name.longest" :aria-invalid="!!problem" aria-describedby="template-error" />
    <ElButton size="small" @click="keep(false)">{{ t.keep }}</ElButton>
    <ElButton v-if="problem?.code === 'template-name-taken'" size="small" @click="keep(true)">{{ t.replace }}</ElButton>
    <p id="template-error" class="error" role="alert">{{ problem ? problem.at('name') || problem.detail : '' }}</p>
  </div>
</template>

<style scoped>
.keep {
  display: flex;
  flex-basis: 100%;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.keep .el-input {
  width: 280px;
}
</style>
