<script setup lang="ts">
import type { Schemas } from '../api/desk'
import { text } from '../text/desk'

/** How sure it is who sent something: a word wherever a sender is named. */
defineProps<{ identity: Schemas['PanelFile']['identity'] }>()
</script>

<template>
  <ElTooltip :content="text.identity[identity].why" :show-after="300"><span class="identity" :class="identity">{{ text.identity[identity].word }}</span></ElTooltip>
</template>

<style scoped>
.identity {
  padding: 0 5px;
  border: 1px solid var(--line);
  border-radius: 3px;
  font-size: 14px;
  white-space: nowrap;
}
.CONFIRMED {
  border-color: var(--moss);
}
.SELF_DECLARED {
  border-color: var(--acorn);
  border-style: dashed;
}
</style>
