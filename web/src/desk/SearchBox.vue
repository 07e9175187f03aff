<script setup lang="ts">
import { ElAutocomplete } from 'element-plus/es/components/autocomplete/index.mjs'
import 'element-plus/theme-chalk/el-autocomplete.css'
import 'element-plus/theme-chalk/el-input.css'
import 'element-plus/theme-chalk/el-popper.css'
import 'element-plus/theme-chalk/el-scrollbar.css'
import { ref } from 'vue'
import { desk, type Schemas } from '../api/desk'
import { text } from '../text/desk'
import { router } from './router'
import { useKeys } from './use-keys'

/** Finds people, rounds, files and receipt codes from wherever one is. */
const t = text.search
const typed = ref('')
type Hit = Schemas['Hit'] & { value: string }

useKeys({ '/': () => document.querySelector<HTMLInputElement>('.search-box input')?.focus() })

async function find(words: string, show: (hits: Hit[]) => void) {
  try {
    show((await desk.search(words)).map((hit) => ({ ...hit, value: hit.name })))
  } catch {
    show([])
  }
}

async function go(hit: Hit) {
  typed.value = ''
  if (hit.kind === 'person') await router.push({ name: 'contact', params: { id: hit.contactId! } })
  else if (hit.kind === 'round') await router.push({ name: hit.draft ? 'sheet' : 'round', params: { id: hit.roundId! } })
  else await router.push({ name: 'round', params: { id: hit.roundId! }, query: { basket: hit.basketId! } })
}
</script>

<template>
  <ElAutocomplete
    v-model="typed"
    class="search-box"
    :fetch-suggestions="(words: string, show: any) => find(words, show)"
    :trigger-on-focus="false"
    :debounce="200"
    :aria-label="t.label"
    :placeholder="t.label"
    highlight-first-item
    popper-class="search-hits"
    @select="(hit: any) => go(hit)"
  >
    <template #default="{ item }">
      <span class="kind quiet">{{ t.kinds[(item as Hit).kind] }}</span> {{ (item as Hit).name }}
      <span class="quiet">{{ (item as Hit).kind === 'round' ? text.state[(item as Hit).detail] : (item as Hit).detail }}</span>
    </template>
  </ElAutocomplete>
</template>

<style>
.search-hits {
  width: 520px;
}
.search-box {
  width: 300px;
}
.search-box .el-input__inner {
  font: 15px var(--text);
}
</style>
