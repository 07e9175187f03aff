<script lang="ts">
import type { Standing } from './tile'

interface Kind {
  id: string
  standing: Standing
  late: boolean
  overdue: boolean
}

const STANDINGS: Standing[] = ['NOT_OWED', 'WAIVED', 'RETURNED', 'ACCEPTED', 'ARRIVED', 'PART', 'WANTED']

/** The name of the drawing for a tile. */
export function drawing(standing: Standing, late = false, overdue = false): string {
  return `weave-${standing.toLowerCase()}${late ? '-late' : ''}${overdue ? '-overdue' : ''}`
}

const kinds: Kind[] = STANDINGS.flatMap((standing) =>
  [false, true].flatMap((late) => [false, true].map((overdue) => ({ id: drawing(standing, late, overdue), standing, late, overdue }))),
)

/** The strands of a three-by-three weave; a half-woven tile has only those below its diagonal. */
function strands(standing: Standing) {
  const woven = !['WANTED', 'WAIVED', 'NOT_OWED'].includes(standing)
  const cells = woven ? Array.from({ length: 9 }, (_, n) => ({ column: n % 3, row: Math.floor(n / 3) })) : []
  return cells
    .filter(({ column, row }) => standing !== 'PART' || row > column || (row === column && row === 2))
    .map(({ column, row }) => {
      const lying = (column + row) % 2 === 0
      return { x: 2.6 + column * 5.7 + (lying ? 0 : 1), y: 2.6 + row * 5.7 + (lying ? 1 : 0), width: lying ? 5.4 : 3.4, height: lying ? 3.4 : 5.4 }
    })
}
</script>

<script setup lang="ts">
/** Every weave tile drawn once for the whole page; a board of thousands only points here. */
</script>

<template>
  <svg class="sprite" width="0" height="0" aria-hidden="true">
    <symbol v-for="kind in kinds" :id="kind.id" :key="kind.id" viewBox="0 0 22 22" :class="[kind.standing.toLowerCase(), { overdue: kind.overdue }]">
      <path v-if="kind.late" class="frame" d="M1.500 1.500H20.500V17.500L17 20.500 14 17.500 11 20.500 8 17.500 5 20.500 1.500 17.500Z" />
      <rect v-else-if="kind.standing !== 'WAIVED' && kind.standing !== 'NOT_OWED'" class="frame" x="1.500" y="1.500" width="19" height="19" rx="2" />
      <rect v-for="(strand, n) in strands(kind.standing)" :key="n" class="strand" v-bind="strand" rx="0.800" />
      <path v-if="kind.standing === 'ACCEPTED'" class="tick-back" d="M6 11.500l3.600 3.800L16.500 6.500" />
      <path v-if="kind.standing === 'ACCEPTED'" class="tick" d="M6 11.500l3.600 3.800L16.500 6.500" />
      <path v-if="kind.standing === 'RETURNED'" class="fold" d="M10.500 1.500h10v10z" />
      <circle v-if="kind.standing === 'NOT_OWED'" class="nothing" cx="11" cy="11" r="1.600" />
      <path v-if="kind.standing === 'WAIVED'" class="slant" d="M5 17.500L17 4.500" />
    </symbol>
  </svg>
</template>

<style scoped>
.sprite {
  position: absolute;
}
.frame {
  fill: var(--card);
  stroke: var(--line-strong);
  stroke-width: 1.2;
}
.wanted .frame {
  stroke-dasharray: 3 2.2;
}
.strand {
  fill: var(--oak);
}
.accepted .strand {
  fill: var(--moss);
}
.accepted .frame {
  stroke: var(--leaf);
}
.tick,
.tick-back {
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.tick-back {
  stroke: var(--card);
  stroke-width: 5;
}
.tick {
  stroke: var(--leaf-deep);
  stroke-width: 2.6;
}
.returned .frame {
  stroke: var(--rowan);
}
.fold {
  fill: var(--rowan-tint);
  stroke: var(--rowan);
  stroke-width: 1.4;
  stroke-linejoin: round;
}
.slant {
  stroke: var(--slate);
  stroke-width: 2;
  stroke-linecap: round;
}
.nothing {
  fill: var(--line-strong);
}
.overdue .frame {
  stroke: var(--rowan);
  stroke-width: 2.8;
}
</style>
