<script setup lang="ts">
import { text } from '../../../text/desk'
import type { Standing } from '../../../shared/tile'
import WeaveTile from '../../../shared/WeaveTile.vue'

const standings: Standing[] = ['WANTED', 'PART', 'ARRIVED', 'ACCEPTED', 'RETURNED', 'WAIVED', 'NOT_OWED']
</script>

<template>
  <dl class="legend" :aria-label="text.round.legend">
    <div v-for="standing in standings" :key="standing">
      <dt><WeaveTile :standing="standing" :label="text.standing[standing]!" /></dt>
      <dd>{{ text.standing[standing] }}</dd>
    </div>
    <div>
      <dt><WeaveTile standing="ARRIVED" late :label="text.round.late" /></dt>
      <dd>{{ text.round.late }}</dd>
    </div>
    <div>
      <dt><WeaveTile standing="WANTED" overdue :label="text.round.overdue" /></dt>
      <dd>{{ text.round.overdue }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  margin: 12px 0 0;
  color: var(--slate);
  font-size: 15px;
}
.legend div {
  display: flex;
  align-items: center;
  gap: 8px;
}
dd {
  margin: 0;
}
</style>
