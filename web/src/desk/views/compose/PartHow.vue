<script setup lang="ts">
import type { RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import FieldBox from './FieldBox.vue'

defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
</script>

<template>
  <p>{{ t.personal }}</p>
  <label class="tick"><input v-model="sheet.openLink" type="checkbox" /> {{ t.openLink }}</label>
  <FieldBox v-if="sheet.openLink" id="passcode" v-slot="{ attrs }" :label="t.passcode" :error="errorAt('passcode')">
    <input v-bind="attrs" v-model="sheet.passcode" class="input" maxlength="64" autocomplete="off" />
  </FieldBox>
</template>

<style scoped>
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 40px;
  margin: 6px 0 10px;
}
</style>
