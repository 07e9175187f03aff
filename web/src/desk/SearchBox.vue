<script setup lang="ts">
import { desk, type Schemas } from '../api/desk'
import { text } from '../text/desk'
import FindBox from './fields/FindBox.vue'
import { router } from './router'
import { useKeys } from './use-keys'

/** Finds people, rounds, files and receipt codes from wherever one is. */
const t = text.search
type Hit = Schemas['Hit'] & { key: string }

useKeys({ '/': () => document.getElementById('search')?.focus() })

async function find(words: string): Promise<Hit[]> {
  return (await desk.search(words)).map((hit, n) => ({ ...hit, key: `${n} ${hit.name}` }))
}

async function go(hit: Hit) {
  if (hit.kind === 'person') await router.push({ name: 'contact', params: { id: hit.contactId! } })
  else if (hit.kind === 'round') await router.push({ name: hit.draft ? 'sheet' : 'round', params: { id: hit.roundId! } })
  else await router.push({ name: 'round', params: { id: hit.roundId! }, query: { basket: hit.basketId! } })
}
</script>

<template>
  <FindBox id="search" v-slot="{ choice }" class="search" :label="t.label" :none="t.none" :find="find" @pick="go">
    <span class="kind quiet">{{ t.kinds[choice.kind] }}</span> {{ choice.name }} <span class="quiet">{{ choice.kind === 'round' ? text.state[choice.detail] : choice.detail }}</span>
  </FindBox>
</template>

<style>
.search {
  width: 320px;
}
.found .kind {
  display: inline-block;
  min-width: 62px;
}
</style>
