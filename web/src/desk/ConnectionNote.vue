<script setup lang="ts">
import { ref } from 'vue'
import { text } from '../text/desk'
import { connected } from './live'
import SignInAgain from './SignInAgain.vue'
import { sessionEnded } from './use-session'

/** Says at once when what is shown may be old, and how to go on. */
const t = text.connection
const signing = ref(false)
</script>

<template>
  <p v-if="sessionEnded" class="note" role="alert">{{ t.ended }} <ElButton size="small" @click="signing = true">{{ t.signIn }}</ElButton></p>
  <p v-else-if="!connected" class="note" role="alert">{{ t.lost }}</p>
  <SignInAgain v-if="signing" @done="signing = false" />
</template>

<style scoped>
.note {
  margin: 0;
  padding: 6px 28px;
  border-bottom: 2px solid var(--acorn);
  background: var(--tint);
}
</style>
