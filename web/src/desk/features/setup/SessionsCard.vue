<script setup lang="ts">
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'

/** Where one is signed in, and signing out there. */
const t = text.team
const { value: sessions, load } = useRead(['sessions'], desk.sessions, { fresh: true })

async function end(one: Schemas['Living']) {
  try {
    await desk.endSession(one.handle)
    say(t.sessionEnded)
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <section class="setup-part" aria-labelledby="sessions">
    <h2 id="sessions">{{ t.sessionsTitle }}</h2>
    <ul>
      <li v-for="one in sessions" :key="one.handle">
        <strong>{{ one.browser || t.unknownBrowser }}</strong>
        <span class="quiet"> {{ one.caller ? `${t.sessionFrom(one.caller)}, ` : '' }}{{ one.own ? t.sessionHere : t.sessionLast(dayAndTime(one.lastAt)) }}</span>
        <ElButton v-if="!one.own" size="small" :aria-label="`${t.sessionEnd}: ${one.browser}`" @click="end(one)">{{ t.sessionEnd }}</ElButton>
      </li>
    </ul>
  </section>
</template>

<style scoped>
li > span {
  margin-left: 8px;
}
li .el-button {
  margin-left: 10px;
}
</style>
