<script setup lang="ts">
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'

/** The parts of the post: letters that went and wait, those that will go, and what came in. */
const t = text.post.parts
const { value: post } = useRead(['post'], desk.post, { on: (event) => event.type === 'letter' })
</script>

<template>
  <nav class="parts" :aria-label="t.label">
    <RouterLink to="/post">{{ t.letters }}</RouterLink>
    <RouterLink to="/post/goes">{{ t.goes }}</RouterLink>
    <RouterLink to="/post/inward">{{ t.inward }}</RouterLink>
    <RouterLink v-if="post?.pretend" to="/post-office">{{ t.office }}</RouterLink>
  </nav>
</template>

<style scoped>
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin-bottom: 16px;
  border-bottom: 1px solid var(--line);
}
a {
  padding: 6px 2px;
  color: var(--bark);
  text-decoration: none;
}
a.router-link-exact-active {
  border-bottom: 3px solid var(--oak);
  font-weight: 600;
}
</style>
