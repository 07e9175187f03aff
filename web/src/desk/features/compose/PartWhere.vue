<script setup lang="ts">
import { limits } from '../../../api/limits'
import type { RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import FieldBox from './FieldBox.vue'
import FoldedSentence from './FoldedSentence.vue'
import { useExample } from './use-example'

const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
const { problems } = useExample(props.sheet)
/** A pattern with its fields in words; the ending goes without saying. */
function words(pattern: string): string {
  const names: Record<string, string> = t.patternFields
  return pattern.replace(/\{(\w+)[^}]*\}/g, (typed, field: string) => names[field] ?? typed).replaceAll('/', ' / ').trim()
}

const FIELDS = '{round} {group} {person} {organisation} {email} {reference} {item} {original} {ext} {received:yyyy-MM-dd} {deadline:yyyy-MM-dd} {receipt} {number}'
</script>

<template>
  <FoldedSentence :sentence="t.places(words(sheet.folderPattern), words(sheet.namePattern))" :change="t.changePlaces" :faulty="!!(errorAt('folderPattern') || errorAt('namePattern'))">
    <FieldBox id="folder-pattern" v-slot="{ attrs }" :label="t.folder" :error="problems.folderPattern || errorAt('folderPattern')">
      <ElInput v-bind="attrs" v-model="sheet.folderPattern" class="mono" :maxlength="limits.RoundSheet.folderPattern.longest" spellcheck="false" />
    </FieldBox>
    <FieldBox id="name-pattern" v-slot="{ attrs }" :label="t.file" :error="problems.namePattern || errorAt('namePattern')">
      <ElInput v-bind="attrs" v-model="sheet.namePattern" class="mono" :maxlength="limits.RoundSheet.namePattern.longest" spellcheck="false" />
    </FieldBox>
    <p class="quiet fields">{{ t.usable }}: <span class="mono">{{ FIELDS }}</span></p>
  </FoldedSentence>
</template>

<style scoped>
.fields {
  margin-bottom: 14px;
}
</style>
