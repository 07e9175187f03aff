<script setup lang="ts">
import type { ApiProblem } from '../api/problem'
import { text } from '../text/desk'

defineProps<{ problem: ApiProblem }>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <div class="failure" role="alert">
    <span><strong>{{ problem.title }}.</strong> {{ problem.detail }}</span>
    <ElButton size="small" @click="$emit('retry')">{{ text.retry }}</ElButton>
  </div>
</template>
