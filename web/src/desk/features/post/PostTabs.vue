<script setup lang="ts">
import { computed } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import PartTabs from '../../PartTabs.vue'
import { useRead } from '../../queries'

/** The parts of the post: letters that went and wait, those that will go, and what came in. */
const t = text.post.parts
const { value: post } = useRead(['post'], desk.post, { on: (event) => event.type === 'letter' })
const parts = computed(() => [
  { to: '/post', label: t.letters },
  { to: '/post/goes', label: t.goes },
  { to: '/post/inward', label: t.inward },
  ...(post.value?.pretend ? [{ to: '/post-office', label: t.office }] : []),
])
</script>

<template>
  <PartTabs :label="t.label" :parts="parts" />
</template>
