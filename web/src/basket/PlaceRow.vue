<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'
import { sizeWords } from '../light/said'
import { text } from '../text/sender'
import type { PlaceFile } from './use-page'

/** One file that lies there for whoever reads the page. What is looked at is a drawing that the office makes, page by page. */
const props = defineProps<{ file: PlaceFile; takeAway: boolean; token: string }>()
const emit = defineEmits<{ take: [] }>()
const looking = ref(false)
const picture = ref('')
const failed = ref(false)
const page = ref(1)
const pages = ref(1)

async function show(wanted: number) {
  failed.value = false
  try {
    const response = await fetch(`/x/${props.token}/look/${props.file.number}?page=${wanted}`)
    if (!response.ok) throw new Error(String(response.status))
    pages.value = Number(response.headers.get('Oak-Pages') ?? 1)
    page.value = wanted
    URL.revokeObjectURL(picture.value)
    picture.value = URL.createObjectURL(await response.blob())
  } catch {
    failed.value = true
  }
}

function toggle() {
  looking.value = !looking.value
  if (looking.value && !picture.value) void show(1)
}

onBeforeUnmount(() => URL.revokeObjectURL(picture.value))
</script>

<template>
  <li>
    <div class="line">
      <span class="what">
        <bdi class="name">{{ file.name }}</bdi>
        <span class="quiet">{{ sizeWords(file.bytes) }}<template v-if="file.taken > 0"> · {{ text.takenAway }}</template></span>
        <span v-if="file.answers" class="answers">{{ text.answersYours(file.answers) }}</span>
      </span>
      <span class="ways">
        <button v-if="file.look !== 'NONE'" class="button small" type="button" :aria-expanded="looking" :aria-label="looking ? `${text.fold}: ${file.name}` : `${text.look}: ${file.name}`" @click="toggle">{{ looking ? text.fold : text.look }}</button>
        <a v-if="takeAway" class="button small" :href="`/x/${token}/${file.number}/${encodeURIComponent(file.name)}`" :aria-label="`${text.take}: ${file.name}`" download @click="emit('take')">{{ text.take }}</a>
      </span>
    </div>
    <div v-if="looking" class="look">
      <p v-if="failed" class="quiet" role="status">{{ text.lookFailed }}</p>
      <template v-else-if="picture">
        <img :src="picture" :alt="pages > 1 ? `${file.name}, ${text.pageOf(page, pages)}` : file.name" />
        <div v-if="pages > 1" class="ways">
          <button class="button small" type="button" :disabled="page === 1" @click="show(page - 1)">{{ text.pageBefore }}</button>
          <span role="status">{{ text.pageOf(page, pages) }}</span>
          <button class="button small" type="button" :disabled="page === pages" @click="show(page + 1)">{{ text.pageAfter }}</button>
        </div>
      </template>
      <p v-else class="quiet" role="status">{{ text.loading }}</p>
    </div>
  </li>
</template>

<style scoped>
li {
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.what {
  display: grid;
  flex: 1 1 200px;
  min-width: 0;
}
.name {
  font-family: var(--mono);
  font-size: 15px;
  overflow-wrap: anywhere;
}
.answers {
  color: var(--leaf-deep);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.look {
  display: grid;
  gap: 8px;
  padding: 8px 0;
}
img {
  display: block;
  max-width: 100%;
  border: 1px solid var(--line);
  background: #fff;
}
</style>
