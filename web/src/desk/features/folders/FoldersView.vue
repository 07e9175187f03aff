<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'
import BinPart from './BinPart.vue'
import FindingsPart from './FindingsPart.vue'
import FolderList from './FolderList.vue'
import KeptPart from './KeptPart.vue'

/** The folders, what was changed in them by hand, what lies in the bin, and until when papers are kept. */
const t = text.folders
type Part = keyof typeof t.parts
const route = useRoute()
const part = computed<Part>(() => (Object.keys(t.parts) as Part[]).find((one) => one === route.query.show) ?? 'folders')
const { value: findings } = useRead(['findings'], desk.findings, { on: (event) => event.type === 'filing' })
const { value: retention } = useRead(['retention'], desk.retention, { on: (event) => ['filing', 'basket', 'round'].includes(event.type) })
const counts = computed<Partial<Record<Part, number>>>(() => ({ hand: findings.value?.findings.filter((one) => !one.leftAlone).length, bin: retention.value?.bin.length }))
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ t.title }}</h1>
      <nav class="parts" :aria-label="t.title">
        <RouterLink v-for="(label, key) in t.parts" :key="key" class="button" :class="{ here: part === key }" :aria-current="part === key ? 'page' : undefined" :to="{ query: key === 'folders' ? {} : { show: key } }">{{ label }}<span v-if="counts[key]"> {{ counts[key] }}</span></RouterLink>
        <RouterLink class="button" :to="{ name: 'journal' }">{{ text.filing.toJournal }}</RouterLink>
      </nav>
    </header>
    <FolderList v-if="part === 'folders'" />
    <FindingsPart v-else-if="part === 'hand'" />
    <BinPart v-else-if="part === 'bin'" />
    <KeptPart v-else />
  </div>
</template>

<style scoped>
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.here {
  border-color: var(--leaf);
  background: var(--leaf-tint);
}
</style>
