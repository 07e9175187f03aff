<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../text/desk'

/** A track drawn to scale, north up: no map is needed to see whether it is the right walk. */
const props = defineProps<{ parts: number[][][]; name: string }>()
const t = text.preview
const SIDE = 400
const EDGE = 14
const KM_PER_DEGREE = 111.2

const drawn = computed(() => {
  const all = props.parts.flat()
  const north = Math.max(...all.map((point) => point[0]!)), south = Math.min(...all.map((point) => point[0]!))
  const east = Math.max(...all.map((point) => point[1]!)), west = Math.min(...all.map((point) => point[1]!))
  // A degree of longitude is narrower the farther from the equator.
  const squeeze = Math.cos((((north + south) / 2) * Math.PI) / 180)
  const width = (east - west) * squeeze, height = north - south
  const scale = (SIDE - 2 * EDGE) / Math.max(width, height, 1e-6)
  const place = (point: number[]) => [EDGE + (point[1]! - west) * squeeze * scale, EDGE + (north - point[0]!) * scale] as const
  return {
    lines: props.parts.filter((part) => part.length > 1).map((part) => part.map((point) => place(point).map((n) => n.toFixed(1)).join(',')).join(' ')),
    points: props.parts.filter((part) => part.length === 1).map((part) => place(part[0]!)),
    ends: props.parts.filter((part) => part.length > 1).map((part) => [place(part[0]!), place(part[part.length - 1]!)] as const),
    height: Math.max(60, 2 * EDGE + height * scale),
    count: all.length,
    size: t.trackSize((width * KM_PER_DEGREE).toFixed(1), (height * KM_PER_DEGREE).toFixed(1)),
  }
})
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${SIDE} ${drawn.height}`" role="img" :aria-label="`${name}: ${t.track(drawn.count)}`">
      <polyline v-for="(line, n) in drawn.lines" :key="n" :points="line" />
      <template v-for="([start, end], n) in drawn.ends" :key="`end${n}`"><circle :cx="start[0]" :cy="start[1]" r="5" class="start" /><rect :x="end[0] - 4" :y="end[1] - 4" width="8" height="8" /></template>
      <circle v-for="(point, n) in drawn.points" :key="`point${n}`" :cx="point[0]" :cy="point[1]" r="4" />
    </svg>
    <figcaption class="quiet">{{ t.track(drawn.count) }}. {{ drawn.size }}.</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  max-height: 60vh;
  border: 1px solid var(--line);
  background: #fff;
}
polyline {
  fill: none;
  stroke: var(--leaf-deep);
  stroke-width: 2.5;
  stroke-linejoin: round;
}
circle,
rect {
  fill: var(--rowan);
}
.start {
  fill: var(--leaf-deep);
}
</style>
