<script setup lang="ts">
import { text } from '../../../text/desk'

/** What the person of an exchange may do there. */
export interface Rights {
  putIn: boolean
  see: boolean
  takeAway: boolean
  asksFirst: boolean
}
const rights = defineModel<Rights>({ required: true })
defineProps<{ id: string; error: string; titled?: boolean }>()
const t = text.exchanges
</script>

<template>
  <fieldset :aria-describedby="`${id}-error`">
    <legend :class="{ 'hidden-text': titled }">{{ t.rights }}</legend>
    <ElCheckbox v-model="rights.putIn">{{ t.rightPutIn }}</ElCheckbox>
    <ElCheckbox v-model="rights.see">{{ t.rightSee }}</ElCheckbox>
    <ElCheckbox v-model="rights.takeAway">{{ t.rightTakeAway }}</ElCheckbox>
    <p v-if="rights.see && !rights.takeAway" class="quiet">{{ t.seeOnly }}</p>
    <p :id="`${id}-error`" class="error" role="alert">{{ error }}</p>
    <ElCheckbox v-model="rights.asksFirst" :aria-describedby="`${id}-asks`">{{ t.asksFirst }}</ElCheckbox>
    <p :id="`${id}-asks`" class="quiet">{{ t.asksFirstHint }}</p>
  </fieldset>
</template>

<style scoped>
fieldset {
  display: grid;
  gap: 2px;
  justify-items: start;
  margin: 0;
  padding: 0;
  border: 0;
}
legend {
  padding: 0;
  font-weight: 600;
}
fieldset :deep(.el-checkbox) {
  height: auto;
  min-height: 28px;
  white-space: normal;
}
</style>
