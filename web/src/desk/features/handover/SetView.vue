<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { sizeWords } from '../../../shared/size'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { sayProblem } from '../../say'

/** The set of a closed round: every file is read and compared with its hash, then it can be taken away as a ZIP or as a bag. */
const t = text.handover
const round = Number(useRoute().params.id)
const { value: state, problem, load } = useRead(['set', round], () => desk.roundSet(round), { on: (event) => event.type === 'filing' && event.roundId === round })
const { value: rounds } = useRead(['rounds'], desk.rounds)
const title = computed(() => rounds.value?.find((one) => one.id === round)?.title ?? '')
const asked = ref(false)
const ready = computed(() => !!state.value && state.value.files > 0 && state.value.ready === state.value.files && state.value.wrong.length === 0)
const share = computed(() => (state.value ? Math.floor((100 * (state.value.ready + state.value.wrong.length)) / Math.max(1, state.value.files)) : 0))

async function prepare() {
  asked.value = true
  try {
    await desk.prepareSet(round)
    await load()
  } catch (error) {
    sayProblem(error)
  }
  asked.value = false
}
</script>

<template>
  <div class="page">
    <header><div><h1>{{ t.title }}</h1><p class="quiet"><RouterLink :to="{ name: 'round', params: { id: round } }">{{ title }}</RouterLink></p></div></header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!state && !problem" />
    <template v-if="state">
      <p>{{ t.holds(state.files) }}, {{ sizeWords(state.bytes) }}. {{ t.intro }}</p>
      <div v-if="state.running" role="status">
        <p>{{ t.reading(state.ready, state.files) }}</p>
        <ElProgress :percentage="share" :aria-label="t.check" />
      </div>
      <p v-else-if="ready" role="status"><strong>{{ t.ready(state.files) }}</strong></p>
      <div v-if="state.wrong.length > 0" class="wrong">
        <p class="error" role="alert">{{ t.wrong(state.wrong.length) }}</p>
        <ul><li v-for="place in state.wrong" :key="place" class="mono">{{ place }}</li></ul>
        <RouterLink :to="{ name: 'folders', query: { show: 'hand' } }">{{ t.toHand }}</RouterLink>
      </div>
      <div class="actions">
        <template v-if="ready">
          <a class="button" :href="`/api/sets/${round}/bag.zip`" download>{{ t.bag }}</a>
          <a class="button" :href="`/api/sets/${round}/set.zip`" download>{{ t.zip }}</a>
        </template>
        <ElButton v-if="state.files > 0" :type="ready ? 'default' : 'primary'" :loading="asked || state.running" @click="prepare">{{ ready ? t.again : t.check }}</ElButton>
      </div>
      <p class="quiet">{{ t.bagHelp }}</p>
    </template>
  </div>
</template>

<style scoped>
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 14px 0;
}
.wrong {
  padding: 8px 14px;
  border-left: 5px solid var(--rowan);
  background: var(--card);
}
p {
  max-width: 80ch;
}
</style>
