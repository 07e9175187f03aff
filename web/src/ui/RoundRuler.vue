<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../text/desk'
import { dayAndTime, shortDay } from './time'

/**
 * One time line of a round from its opening on: the stepped line of completed baskets against the number asked, the deadline post, grace hatched,
 * and the hand that says now.
 */
const props = defineProps<{ opened: string; deadline: string; graceEnd: string; now: string; closed: string | null; zone: string; asked: number; finished: string[] }>()
const t = text.ruler
const WIDTH = 1000
const HEIGHT = 64

const span = computed(() => {
  const from = Date.parse(props.opened)
  const last = Math.max(...[props.graceEnd, props.now, props.closed ?? props.now, ...props.finished].map((at) => Date.parse(at)))
  return { from, to: Math.max(last + (last - from) * 0.04, from + 3_600_000) }
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

const marks = computed(() => [
  { kind: 'opened', at: props.opened, words: t.opened(shortDay(props.opened, props.zone)) },
  { kind: 'deadline', at: props.deadline, words: t.deadline(shortDay(props.deadline, props.zone)) },
  { kind: 'now', at: props.now, words: t.now },
])
</script>

<template>
  <figure class="ruler" role="img" :aria-label="t.label(finished.length, asked, dayAndTime(opened, zone), dayAndTime(deadline, zone))">
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
    <div class="words" aria-hidden="true">
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
  top: -55px;
  left: 4px;
  transform: none;
  color: var(--slate);
}
</style>
