<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { sizeWords } from '../../../shared/size'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'
import { say } from '../../say'

/** How much room the office, each user and each round take up, and may. */
type Line = Schemas['SpaceLine']
const t = text.team
const MEBIBYTE = 1024 * 1024
const SHOWN_ROUNDS = 20
const { value: lines, load } = useRead(['space'], desk.space, { fresh: true, on: (event) => event.type === 'team' })
const typed = reactive(new Map<string, number | undefined>())
const problems = reactive(new Map<string, string>())
const every = ref(false)
const keyOf = (line: Line) => `${line.of} ${line.id}`
watch(lines, (now) => now?.forEach((line) => typed.set(keyOf(line), line.most === null ? undefined : Math.round(line.most / MEBIBYTE))), { immediate: true })
const of = (kind: Line['of']) => lines.value?.filter((line) => line.of === kind) ?? []
const rounds = computed(() => (every.value ? of('ROUND') : of('ROUND').slice(0, SHOWN_ROUNDS)))
const parts = computed(() => [{ title: '', lines: of('OFFICE') }, { title: t.spaceUsers, lines: of('USER') }, { title: t.spaceRounds, lines: rounds.value }].filter((part) => part.lines.length > 0))
const name = (line: Line) => (line.of === 'OFFICE' ? t.spaceOffice : line.name)
const changed = (line: Line) => (typed.get(keyOf(line)) ?? null) !== (line.most === null ? null : Math.round(line.most / MEBIBYTE))

async function set(line: Line) {
  problems.delete(keyOf(line))
  try {
    await desk.limitSpace(line.of, line.id, typed.get(keyOf(line)) ?? null)
    say(t.spaceSaved)
    await load()
  } catch (error) {
    const refused = error as ApiProblem
    problems.set(keyOf(line), refused.at('mostMebibytes') || `${refused.title}. ${refused.detail}`)
  }
}
</script>

<template>
  <section aria-labelledby="team-space">
    <h2 id="team-space">{{ t.space }}</h2>
    <p class="quiet">{{ t.spaceNote }}</p>
    <table class="plain">
      <thead>
        <tr>
          <th scope="col">{{ t.spaceOf }}</th>
          <th scope="col">{{ t.spaceUsed }}</th>
          <th scope="col">{{ t.spaceMost }}</th>
        </tr>
      </thead>
      <tbody v-for="part in parts" :key="part.title">
        <tr v-if="part.title"><th colspan="3" scope="rowgroup">{{ part.title }}</th></tr>
        <tr v-for="line in part.lines" :key="keyOf(line)">
          <td>{{ name(line) }}</td>
          <td class="used">
            {{ sizeWords(line.used) }}
            <template v-if="line.most !== null">
              <ElProgress :percentage="Math.min(100, line.percent)" :show-text="false" :status="line.percent >= 100 ? 'exception' : line.warns ? 'warning' : undefined" :aria-label="name(line)" />
              <span :class="line.warns ? 'soon' : 'quiet'">{{ t.spaceShare(line.percent) }}</span>
            </template>
          </td>
          <td>
            <form class="row" novalidate @submit.prevent="set(line)">
              <ElInputNumber :model-value="typed.get(keyOf(line))" :controls="false" :precision="0" :aria-label="t.spaceMostOf(name(line))" :aria-invalid="problems.has(keyOf(line))" :aria-describedby="`space-${keyOf(line).replace(' ', '-')}`" @update:model-value="(value?: number | null) => typed.set(keyOf(line), value ?? undefined)" />
              <ElButton v-if="changed(line)" size="small" native-type="submit" :aria-label="t.spaceSetFor(name(line))">{{ t.spaceSet }}</ElButton>
            </form>
            <p :id="`space-${keyOf(line).replace(' ', '-')}`" class="error" role="alert">{{ problems.get(keyOf(line)) ?? '' }}</p>
          </td>
        </tr>
      </tbody>
    </table>
    <ElButton v-if="!every && of('ROUND').length > SHOWN_ROUNDS" size="small" @click="every = true">{{ t.spaceMore(of('ROUND').length - SHOWN_ROUNDS) }}</ElButton>
  </section>
</template>

<style scoped>
section {
  margin-top: 28px;
}
section > .quiet {
  margin-bottom: 10px;
}
h2 {
  margin-bottom: 6px;
  font-size: 20px;
}
th[scope='rowgroup'] {
  padding-top: 14px;
  font-weight: 600;
}
.used {
  min-width: 180px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.soon {
  color: var(--acorn-text);
}
</style>
