<script setup lang="ts">
import type { Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import AskOnce from '../../AskOnce.vue'

/** What the rules would do to the files that are here, before and after side by side. */
defineProps<{ trial?: Schemas['TrialView']; outdated: boolean; busy: boolean }>()
const emit = defineEmits<{ try: []; apply: [] }>()
const t = text.filing
</script>

<template>
  <section class="trial" aria-live="polite">
    <h2>{{ t.trial }}</h2>
    <p v-if="!trial" class="quiet">{{ busy ? t.trying : t.trialNone }}</p>
    <p v-if="outdated" class="warn">{{ t.outdated }}</p>
    <template v-if="trial">
      <ul class="sums">
        <li><strong>{{ trial.moves === 0 ? t.noMoves : t.moves(trial.moves) }}</strong></li>
        <li>{{ t.unchanged(trial.unchanged) }}</li>
        <li v-if="trial.clashes">{{ t.clashes(trial.clashes) }}</li>
        <li v-if="trial.tray">{{ t.toTray(trial.tray) }}</li>
        <li v-if="trial.copies">{{ t.copiesMade(trial.copies) }}</li>
        <li v-if="trial.apart">{{ t.apart(trial.apart) }}</li>
        <li v-if="trial.unreachable" class="warn">{{ t.unreachable(trial.unreachable) }}</li>
      </ul>
    </template>
    <div class="actions">
      <ElButton :loading="busy" @click="emit('try')">{{ t.try }}</ElButton>
      <AskOnce v-if="trial && !outdated && trial.moves + trial.copies + trial.marks > 0" plain :label="t.apply" :question="t.applyAsk(trial.moves)" @sure="emit('apply')" />
    </div>
    <template v-if="trial && trial.rows.length > 0">
      <h3>{{ t.files }}</h3>
      <p v-if="trial.rows.length < trial.moves" class="quiet">{{ t.firstOnly(trial.rows.length, trial.moves) }}</p>
      <table class="plain">
        <thead><tr><th scope="col">{{ t.person }}</th><th scope="col">{{ t.now }}</th><th scope="col">{{ t.then }}</th><th scope="col" class="why">{{ t.why }}</th></tr></thead>
        <tbody>
          <tr v-for="row in trial.rows" :key="row.file">
            <td>{{ row.person }}</td>
            <td class="mono path">{{ row.from }}</td>
            <td class="mono path">{{ row.to }} <span v-if="row.clash" class="tag">{{ t.clash }}</span></td>
            <td class="quiet">{{ row.why }}</td>
          </tr>
        </tbody>
      </table>
      <h3>{{ t.counts }}</h3>
      <table class="plain counts">
        <thead><tr><th scope="col">{{ t.folder }}</th><th scope="col" class="count">{{ t.before }}</th><th scope="col" class="count">{{ t.after }}</th></tr></thead>
        <tbody><tr v-for="one in trial.folders" :key="one.folder"><td class="mono path">{{ one.folder }}</td><td class="count">{{ one.before }}</td><td class="count">{{ one.after }}</td></tr></tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
.trial {
  margin-top: 22px;
}
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin: 6px 0 12px;
  padding: 0;
  list-style: none;
}
.actions {
  display: flex;
  gap: 10px;
}
.path {
  max-width: 46ch;
  overflow-wrap: anywhere;
  font-size: 14px;
}
td {
  vertical-align: top;
}
.why {
  width: 24%;
}
.counts {
  max-width: 720px;
}
.count {
  text-align: right;
}
.warn {
  color: var(--rowan);
}
.tag {
  padding: 0 5px;
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  font-family: var(--text);
}
h3 {
  margin: 18px 0 4px;
}
</style>
