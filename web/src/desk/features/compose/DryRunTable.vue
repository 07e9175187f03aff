<script setup lang="ts">
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'

/** What the plan of a draft would send if it were opened now and nothing came in. */
const props = defineProps<{ roundId: number }>()
const t = text.post.dryRun
const { value: run, problem, load } = useRead(['dry-run', props.roundId], () => desk.dryRun(props.roundId), { fresh: true })

const day = (date: string) => new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(new Date(`${date}T12:00:00Z`))
const leftOut = (reasons: Record<string, number>) => Object.entries(reasons).map(([reason, n]) => `${text.post.reasons[reason] ?? reason} (${n})`).join('; ')
</script>

<template>
  <section class="dry-run" aria-labelledby="dry-run">
    <h3 id="dry-run">{{ t.title }}</h3>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!run && !problem" />
    <template v-if="run">
      <p v-if="run.days.length === 0" class="quiet">{{ t.nothing }}</p>
      <template v-else>
        <p>{{ t.total(run.letters) }}{{ t.most(run.mostToOne) }}. <span v-if="run.late > 0" class="late">{{ t.late(run.late) }}</span></p>
        <div class="scroll" tabindex="0" role="group" :aria-label="t.title">
          <table class="plain">
            <thead><tr><th scope="col">{{ t.date }}</th><th scope="col">{{ t.letter }}</th><th scope="col">{{ t.goes }}</th><th scope="col">{{ t.leftOut }}</th></tr></thead>
            <tbody>
              <tr v-for="one in run.days" :key="one.date + one.kind">
                <td>{{ day(one.date) }}</td>
                <td>{{ text.post.kinds[one.kind] }}</td>
                <td class="number">{{ one.goes }}</td>
                <td class="quiet">{{ leftOut(one.leftOut as Record<string, number>) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </template>
  </section>
</template>

<style scoped>
.dry-run {
  margin-top: 14px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
}
h3 {
  font-size: 17px;
}
.scroll {
  max-height: 300px;
  overflow: auto;
}
.late {
  color: var(--acorn-text);
}
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
</style>
