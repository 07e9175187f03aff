<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { copy } from '../../copy'
import { say } from '../../say'
import { frameCode } from './frame-code'
import { useRead } from '../../queries'
import { useSubmit } from '../../use-submit'

/** Which web sites may show the page of an open link, and what to put into them. */
const props = defineProps<{ roundId: number; url: string; title: string }>()
const t = text.links
const { value: sites } = useRead(['frame-sites', props.roundId], () => desk.frameSites(props.roundId), { fresh: true })
const typed = ref('')
const width = ref<number | undefined>(720)
const height = ref<number | undefined>(900)
watch(sites, (now) => (typed.value = (now?.origins ?? []).join('\n')), { immediate: true })

const code = computed(() => frameCode(props.url, props.title, width.value, height.value))

const { problem, busy, submit } = useSubmit(async () => {
  const lines = typed.value.split('\n').map((line) => line.trim()).filter(Boolean)
  typed.value = ((await desk.setFrameSites(props.roundId, lines)).origins ?? []).join('\n')
  say(t.sitesSaved)
})

const refusal = computed(() => problem.value?.errors.map((error) => error.detail).join(' ') || problem.value?.detail)

async function copyCode() {
  if (await copy(code.value)) say(t.codeCopied)
}
</script>

<template>
  <form class="embed" novalidate @submit.prevent="submit">
    <h3>{{ t.embedTitle }}</h3>
    <p class="quiet">{{ t.embedNote }}</p>
    <label for="embed-sites">{{ t.sites }}</label>
    <ElInput id="embed-sites" v-model="typed" type="textarea" :rows="2" :placeholder="t.siteExample" :aria-invalid="!!problem" aria-describedby="embed-error" />
    <p id="embed-error" class="error" role="alert">{{ refusal }}</p>
    <span><ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ t.saveSites }}</ElButton></span>
    <div class="size">
      <label for="embed-width">{{ t.width }}</label>
      <ElInputNumber id="embed-width" v-model="width" :min="280" :max="3000" :controls="false" />
      <label for="embed-height">{{ t.height }}</label>
      <ElInputNumber id="embed-height" v-model="height" :min="300" :max="5000" :controls="false" />
    </div>
    <label for="embed-code">{{ t.embedCode }}</label>
    <ElInput id="embed-code" class="mono" type="textarea" :rows="4" :model-value="code" readonly />
    <span><ElButton size="small" @click="copyCode">{{ t.copyCode }}</ElButton></span>
  </form>
</template>

<style scoped>
.embed {
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  background: var(--tint);
}
.size {
  display: grid;
  grid-template-columns: auto 110px auto 110px;
  gap: 8px;
  align-items: center;
}
.size .el-input-number {
  width: 110px;
}
</style>
