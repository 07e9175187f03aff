<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime, shortDay } from '../../../shared/time'

type Tick = Schemas['LetterTick']

/**
 * One time line of a round from its opening on: the stepped line of completed baskets against the number asked, the deadline post, grace hatched,
 * and the hand that says now; letters as small marks under the line, solid when they went and hollow when they are planned. Folded, only the line itself.
 */
const props = defineProps<{ opened: string; deadline: string; graceEnd: string; now: string; closed: string | null; zone: string; asked: number; finished: string[]; letters: Tick[]; folded?: boolean }>()
const t = text.ruler
/** How much of its length before them the line goes on for letters that are only planned. */
const PLANNED_SHARE = 0.35
const WIDTH = 1000
const HEIGHT = 64

const span = computed(() => {
  const from = Date.parse(props.opened)
  const last = Math.max(...[props.graceEnd, props.now, props.closed ?? props.now, ...props.finished].map((at) => Date.parse(at)))
  const planned = Math.max(last, ...props.letters.map((tick) => Date.parse(tick.at)))
  return { from, to: Math.max(Math.min(planned, last + (last - from) * PLANNED_SHARE) + (last - from) * 0.04, from + 3_600_000) }
})

function share(at: string): number {
  return (Date.parse(at) - span.value.from) / (span.value.to - span.value.from)
}

const x = (at: string) => Math.round(share(at) * WIDTH * 10) / 10
const y = (done: number) => HEIGHT - 2 - (props.asked ? done / props.asked : 0) * (HEIGHT - 8)

/** A step up at each completion, drawn up to now. */
const steps = computed(() => {
  let path = `M0 ${y(0)}`
  props.finished.toSorted().forEach((at, n) => (path += ` H${x(at)} V${y(n + 1)}`))
  return `${path} H${Math.max(x(props.now), 0)}`
})

/** One tick for each day, however many kinds of letters that day has. */
const ticks = computed(() => {
  const days = new Map<string, { at: string; planned: boolean; kinds: string[] }>()
  for (const tick of props.letters) {
    const key = `${shortDay(tick.at, props.zone)} ${tick.planned}`
    const day = days.get(key) ?? { at: tick.at, planned: tick.planned, kinds: [] }
    day.kinds.push(text.post.several[tick.kind]!(tick.letters))
    days.set(key, day)
  }
  return [...days.values()].filter((day) => share(day.at) <= 1).map((day) => {
    const words = (day.planned ? text.post.tickPlanned : text.post.tickSent)(shortDay(day.at, props.zone), day.kinds.join(', '))
    return { ...day, words }
  })
})

const marks = computed(() => [
  { kind: 'opened', at: props.opened, words: t.opened(shortDay(props.opened, props.zone)) },
  { kind: 'deadline', at: props.deadline, words: t.deadline(shortDay(props.deadline, props.zone)) },
  { kind: 'now', at: props.now, words: t.now },
])
</script>

<template>
  <figure class="ruler" :class="{ folded }" role="img" :aria-label="t.label(finished.length, asked, dayAndTime(opened, zone), dayAndTime(deadline, zone)) + (ticks.length ? t.letters(ticks.map((tick) => tick.words).join('; ')) : '')">
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" preserveAspectRatio="none" aria-hidden="true">
      <defs>
        <pattern id="grace" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><path d="M0 0V8" class="hatch" /></pattern>
      </defs>
      <path :d="`M0 ${y(asked)} H${WIDTH}`" class="asked" />
      <path :d="`${steps} V${HEIGHT} H0 Z`" class="area" />
      <rect :x="x(deadline)" y="0" :width="Math.max(0, x(graceEnd) - x(deadline))" :height="HEIGHT" fill="url(#grace)" />
      <path :d="steps" class="steps" />
      <path :d="`M0 ${HEIGHT - 1} H${WIDTH}`" class="base" />
      <path :d="`M${x(deadline)} 0 V${HEIGHT}`" class="post" />
      <path :d="`M${x(now)} 0 V${HEIGHT}`" class="hand" />
    </svg>
    <div v-if="!folded" class="ticks" aria-hidden="true">
      <svg v-for="tick in ticks" :key="tick.words" class="tick" :class="{ planned: tick.planned }" :style="{ left: `${share(tick.at) * 100}%` }" viewBox="0 0 12 9">
        <title>{{ tick.words }}</title>
        <path d="M1 1 H11 V8 H1 Z" />
      </svg>
    </div>
    <div v-if="!folded" class="words" aria-hidden="true">
      <span v-for="mark in marks" :key="mark.kind" :class="[mark.kind, { left: share(mark.at) > 0.86 }]" :style="{ left: `${share(mark.at) * 100}%` }">{{ mark.words }}</span>
      <span class="total">{{ t.of(finished.length, asked) }}</span>
    </div>
  </figure>
</template>

<style scoped>
.ruler {
  margin: 0 0 14px;
}
svg {
  display: block;
  width: 100%;
  height: 64px;
  overflow: visible;
}
path {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.folded {
  flex: 1;
  min-width: 120px;
  margin: 0;
}
.folded svg {
  height: 22px;
}
.asked {
  stroke: var(--line-strong);
  stroke-dasharray: 2 4;
}
.area {
  fill: var(--leaf-tint);
}
.steps {
  stroke: var(--leaf);
  stroke-width: 2;
}
.base {
  stroke: var(--oak);
  stroke-width: 2;
}
.post {
  stroke: var(--rowan);
  stroke-width: 4;
}
.hand {
  stroke: var(--bark);
  stroke-width: 1.5;
}
.hatch {
  stroke: var(--acorn);
  stroke-width: 2;
}
.ticks {
  position: relative;
  height: 12px;
}
.tick {
  position: absolute;
  top: 2px;
  width: 12px;
  height: 9px;
  transform: translateX(-50%);
}
.tick path {
  fill: var(--oak);
  stroke: var(--oak);
  stroke-width: 1.5;
}
.tick.planned path {
  fill: var(--paper);
}
.words {
  position: relative;
  height: 42px;
  font-size: 15px;
}
.words span {
  position: absolute;
  top: 2px;
  transform: translateX(-50%);
  white-space: nowrap;
}
.words .opened {
  transform: none;
}
.words .left {
  transform: translateX(-100%);
}
.words .deadline {
  color: var(--rowan);
}
.words .now {
  top: 21px;
  font-weight: 600;
}
.words .total {
  top: -67px;
  left: 4px;
  transform: none;
  color: var(--slate);
}
</style>
