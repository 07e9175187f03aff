<script setup lang="ts">
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say, sayProblem } from '../../say'
import AskOnce from '../../AskOnce.vue'
import { useRead } from '../../queries'

const t = text.series
const { value: series, load } = useRead(['series'], desk.series, { on: (event) => event.type === 'round' })
const dayWords = (date: string) => new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' }).format(new Date(`${date}T12:00:00Z`))


async function pause(one: Schemas['ListedSeries']) {
  try {
    await desk.pauseSeries(one.id, !one.paused)
    await load()
  } catch (error) {
    sayProblem(error)
  }
}

async function end(one: Schemas['ListedSeries']) {
  try {
    await desk.endSeries(one.id)
    await load()
    say(t.ended)
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <section v-if="series" aria-labelledby="series">
    <h2 id="series">{{ t.listed }}</h2>
    <p v-if="series.length === 0" class="quiet">{{ t.none }}</p>
    <ul>
      <li v-for="one in series" :key="one.id">
        <div>
          <strong>{{ one.title }}</strong> <span v-if="one.paused" class="quiet">{{ t.paused }}</span>
          <p>{{ t.words(one.words) }}, {{ one.opensItself ? t.opensItself : t.prepared }}<template v-if="one.groups.length">; {{ one.groups.map((group) => text.people.wholeGroup(group)).join(', ') }}</template></p>
          <p v-if="one.coming[0]" class="quiet">{{ t.next }}: {{ t.comingOne(dayWords(one.coming[0].opens), dayWords(one.coming[0].deadline)) }}</p>
          <p v-if="one.trouble" class="error">{{ one.trouble }}</p>
        </div>
        <div class="actions">
          <RouterLink class="button small" :to="{ name: 'series', params: { id: one.id } }" :aria-label="`${t.edit}: ${one.title}`">{{ t.edit }}</RouterLink>
          <ElButton size="small" :aria-label="`${one.paused ? t.resume : t.pause}: ${one.title}`" @click="pause(one)">{{ one.paused ? t.resume : t.pause }}</ElButton>
          <AskOnce small :label="t.end" :name="`${t.end}: ${one.title}`" :question="t.confirmEnd" @sure="end(one)" />
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-top: 28px;
}
h2 {
  font-size: 20px;
}
ul {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  padding: 12px 14px;
  border: 1px solid var(--line);
  border-bottom-width: 0;
  background: var(--card);
}
li:last-child {
  border-bottom-width: 1px;
}
.actions {
  display: flex;
  gap: 8px;
  align-items: start;
}
</style>
