<script setup lang="ts">
import type { RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import FieldBox from './FieldBox.vue'
import { useExample } from './use-example'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
const { problems } = useExample(props.sheet)
const FIELDS = '{round} {group} {person} {organisation} {email} {reference} {item} {original} {ext} {received:yyyy-MM-dd} {deadline:yyyy-MM-dd} {receipt} {number}'
</script>

<template>
  <FieldBox id="folder-pattern" v-slot="{ attrs }" :label="t.folder" :error="problems.folderPattern || errorAt('folderPattern')">
    <input v-bind="attrs" v-model="sheet.folderPattern" class="input mono" maxlength="300" spellcheck="false" />
  </FieldBox>
  <FieldBox id="name-pattern" v-slot="{ attrs }" :label="t.file" :error="problems.namePattern || errorAt('namePattern')">
    <input v-bind="attrs" v-model="sheet.namePattern" class="input mono" maxlength="300" spellcheck="false" />
  </FieldBox>
  <p class="quiet fields">{{ t.fields }}: <span class="mono">{{ FIELDS }}</span></p>
</template>

<style scoped>
.fields {
  margin-bottom: 14px;
}
</style>
