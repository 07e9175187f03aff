<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import LoadingPart from '../../LoadingPart.vue'
import { say, sayProblem } from '../../say'
import { kindWords } from './letter-words'

/** Says what writing to these people would mean, then does it; the letters can be stopped for a minute. */
const props = defineProps<{ roundId: number; baskets: number[] }>()
const emit = defineEmits<{ done: [] }>()
const t = text.post
const preview = ref<Schemas['Sending']>()
const problem = ref<ApiProblem>()
const box = useTemplateRef('box')
const allTheSame = ref(false)
/** Whether somebody is left out who could be written to all the same. */
const leftOut = computed(() => allTheSame.value || ['PAUSED', 'TOO_SOON'].some((why) => preview.value?.skipped[why]))
const chosen = () => ({ baskets: props.baskets, allTheSame: allTheSame.value })
const letters = computed(() => Object.values(preview.value?.kinds ?? {}).reduce((sum, n) => sum + n, 0))

async function look() {
  try {
    preview.value = await desk.previewLetters(props.roundId, chosen())
  } catch (error) {
    problem.value = error as ApiProblem
  }
}

watch(allTheSame, look)
onMounted(async () => {
  await look()
  box.value?.focus({ preventScroll: true })
})

async function send() {
  try {
    const { batch } = await desk.sendLetters(props.roundId, chosen())
    emit('done')
    say(t.sent(letters.value), { label: text.panel.undo, run: () => void stop(batch) })
  } catch (error) {
    problem.value = error as ApiProblem
  }
}

async function stop(batch: number) {
  try {
    say(t.undone((await desk.stopLetters(batch)).letters))
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div ref="box" class="send" tabindex="-1" role="group" :aria-label="t.sends" @keydown.esc.stop="emit('done')">
    <LoadingPart v-if="!preview && !problem" />
    <template v-if="preview">
      <p v-if="letters > 0"><strong>{{ kindWords(preview.kinds) }}</strong></p>
      <p v-else>{{ t.nobody }}</p>
      <p v-for="(n, why) in preview.skipped" :key="why" class="quiet">{{ t.skipped(n, t.reasons[why] ?? String(why)) }}</p>
    </template>
    <ElCheckbox v-if="leftOut" v-model="allTheSame">{{ t.allTheSame }}</ElCheckbox>
    <p v-if="problem" class="error" role="alert">{{ problem.at('baskets') || problem.detail }}</p>
    <span class="buttons">
      <ElButton v-if="letters > 0" type="primary" size="small" @click="send">{{ t.send(letters) }}</ElButton>
      <ElButton size="small" @click="emit('done')">{{ t.cancel }}</ElButton>
    </span>
  </div>
</template>

<style scoped>
.send {
  display: grid;
  flex-basis: 100%;
  gap: 6px;
  padding: 10px 12px;
  background: var(--tint);
  outline: none;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
