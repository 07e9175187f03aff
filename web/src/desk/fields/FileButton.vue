<script setup lang="ts">
import type { UploadFile, UploadRawFile } from 'element-plus'

/** A button that takes one file. The same file can be taken twice in a row. */
defineProps<{ label: string; accept?: string; small?: boolean; plain?: boolean }>()
const emit = defineEmits<{ file: [file: UploadRawFile] }>()

function take(chosen: UploadFile) {
  if (chosen.raw) emit('file', chosen.raw)
}
</script>

<template>
  <ElUpload class="file-button" :auto-upload="false" :show-file-list="false" :accept="accept" :on-change="take">
    <span class="button" :class="{ small, plain }">{{ label }}</span>
  </ElUpload>
</template>

<style scoped>
.file-button {
  display: inline-block;
}
</style>
