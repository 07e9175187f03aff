<script setup lang="ts">
import { text } from '../../../text/desk'

defineProps<{ keys: readonly (readonly [string, string])[] }>()
const open = defineModel<boolean>({ required: true })
</script>

<template>
  <ElDialog v-model="open" :title="text.board.keys" width="460" append-to-body>
    <dl>
      <div v-for="[key, words] in keys" :key="key"><dt><kbd>{{ key }}</kbd></dt><dd>{{ words }}</dd></div>
    </dl>
  </ElDialog>
</template>

<style scoped>
dl {
  margin: 0;
}
div {
  display: grid;
  grid-template-columns: 110px 1fr;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
dd {
  margin: 0;
}
kbd {
  font-family: var(--mono);
}
</style>
