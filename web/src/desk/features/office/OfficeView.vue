<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { dayAndTime } from '../../../shared/time'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import PostTabs from '../post/PostTabs.vue'
import OfficeLetter from './OfficeLetter.vue'

/** The pretend post office of the demo: letters are read as the invented people would, and the clock is moved forward. */
const t = text.office
const route = useRoute()
const router = useRouter()
const find = ref('')
const busy = ref(0)
const { value: view, problem, load } = useRead(['post-office'], desk.postOffice, { on: (event) => event.type === 'letter' })
const letters = computed(() => {
  const words = find.value.trim().toLowerCase()
  return (view.value?.letters ?? []).filter((one) => `${one.to} ${one.subject}`.toLowerCase().includes(words))
})
const shown = computed(() => view.value?.letters.find((one) => one.id === Number(route.query.letter)))
const mood = (address: string) => (view.value!.moods as Record<string, Schemas['TypedMood']['mood']>)[address] ?? 'TAKE'

async function forward(hours: number) {
  busy.value = hours
  try {
    const now = await desk.moveClock(hours)
    say(t.moved(dayAndTime(now.now)))
  } catch (error) {
    sayProblem(error)
  }
  await load()
  busy.value = 0
}
</script>

<template>
  <div class="page">
    <header><h1>{{ t.title }}</h1></header>
    <PostTabs />
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!view && !problem" />
    <template v-if="view">
      <p class="quiet intro">{{ t.intro }}</p>
      <div class="tools">
        <strong>{{ t.clock(dayAndTime(view.now)) }}</strong>
        <ElButton v-for="(words, hours) in t.forward" :key="hours" :loading="busy === Number(hours)" :disabled="busy > 0" @click="forward(Number(hours))">{{ words }}</ElButton>
        <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      </div>
      <EmptyPart v-if="view.letters.length === 0" :words="t.none" />
      <div v-else class="columns">
        <table class="plain">
          <thead>
            <tr><th scope="col">{{ t.to }}</th><th scope="col">{{ t.subject }}</th><th scope="col">{{ t.at }}</th></tr>
          </thead>
          <tbody>
            <tr v-for="one in letters" :key="one.id" :class="{ here: one.id === shown?.id }">
              <td><ElButton class="name" type="primary" link :aria-pressed="one.id === shown?.id" @click="router.replace({ query: { letter: one.id } })">{{ one.to }}</ElButton></td>
              <td dir="auto">{{ one.subject }}</td>
              <td>{{ dayAndTime(one.at) }}</td>
            </tr>
          </tbody>
        </table>
        <OfficeLetter v-if="shown" :key="shown.id" :letter="shown" :mood="mood(shown.to)" @changed="load" />
        <p v-else class="quiet choose">{{ t.choose }}</p>
      </div>
    </template>
  </div>
</template>

<style scoped src="../post/post.css"></style>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin: 12px 0 16px;
}
.tools .el-button {
  margin: 0;
}
.find {
  width: 260px;
  margin-left: auto;
}
th:first-child {
  width: 38%;
}
td {
  overflow-wrap: anywhere;
}
.name {
  height: auto;
  text-align: left;
  white-space: normal;
}
</style>
