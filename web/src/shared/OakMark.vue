<script setup lang="ts">
defineProps<{ size?: number }>()
</script>

<template>
  <svg :width="size ?? 32" :height="size ?? 32" viewBox="0 0 32 32" aria-hidden="true" focusable="false">
    <path d="M16 1c2 2 3 3 5 3 0 2 3 2 3 4s-2 2-2 4c-2 1-4 0-6 1-2-1-4 0-6-1 0-2-2-2-2-4s3-2 3-4c2 0 3-1 5-3z" fill="var(--leaf)" />
    <path d="M16 4v9" stroke="var(--card)" stroke-width="0.9" />
    <g fill="var(--oak)">
      <template v-for="n in 9" :key="n">
        <rect v-if="n % 2" :x="6 + ((n - 1) % 3) * 6.7" :y="16 + Math.floor((n - 1) / 3) * 5.3" width="6.6" height="3.8" rx="1" />
        <rect v-else :x="7.4 + ((n - 1) % 3) * 6.7" :y="15 + Math.floor((n - 1) / 3) * 5.3" width="3.8" height="5.6" rx="1" />
      </template>
    </g>
  </svg>
</template>
