<script setup lang="ts">
import { computed, ref } from 'vue'
import { text } from '../../../text/desk'

/** What is set without having been asked for, in one sentence; opened to be changed, and by itself where something in it is wrong. */
const props = defineProps<{ sentence: string; change: string; faulty: boolean }>()
const touched = ref(false)
const open = computed(() => touched.value || props.faulty)
</script>

<template>
  <slot v-if="open" />
  <p v-else class="sentence">{{ sentence }} <ElButton type="primary" link size="small" :aria-label="change" @click="touched = true">{{ text.compose.change }}</ElButton></p>
</template>

<style scoped>
.sentence {
  margin-bottom: 12px;
}
</style>
