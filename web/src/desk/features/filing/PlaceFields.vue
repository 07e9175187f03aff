<script setup lang="ts">
import { computed } from 'vue'
import { limits } from '../../../api/limits'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import FieldBox from '../compose/FieldBox.vue'
import PatternExamples from './PatternExamples.vue'
import PatternField from './PatternField.vue'
import type { Placement, Root } from './rule-words'

/** Where files go: a root where there are several, a pattern for folders, a pattern for the name. */
const props = defineProps<{ id: string; at: string; place: Placement; roots: Root[]; round: number; nameOnly?: boolean; errorAt: (field: string) => string; folderOfRound: string; nameOfRound: string }>()
const t = text.filing
const rootChoices = computed(() => props.roots.map((one) => ({ value: one.id, label: one.name })))
const root = computed({ get: () => Math.max(1, props.place.root), set: (id: number) => (props.place.root = id) })
</script>

<template>
  <div class="place">
    <FieldBox v-if="!nameOnly && roots.length > 1" :id="`${id}-root`" v-slot="{ attrs }" :label="t.root" :error="errorAt(`${at}.root`)"><ChoiceField v-bind="attrs" v-model="root" :choices="rootChoices" /></FieldBox>
    <FieldBox v-if="!nameOnly" :id="`${id}-folder`" v-slot="{ attrs }" :label="t.folder" :error="errorAt(`${at}.folder`)" :hint="t.patternHelp">
      <PatternField v-bind="attrs" v-model="place.folder" :longest="limits.RoundSheet.folderPattern.longest" :placeholder="folderOfRound" />
    </FieldBox>
    <FieldBox :id="`${id}-name`" v-slot="{ attrs }" :label="t.fileName" :error="errorAt(`${at}.name`)">
      <PatternField v-bind="attrs" v-model="place.name" :longest="limits.RoundSheet.namePattern.longest" :placeholder="nameOfRound" />
    </FieldBox>
    <PatternExamples :folder="place.folder || folderOfRound" :name="place.name || nameOfRound" :round="round" />
  </div>
</template>
