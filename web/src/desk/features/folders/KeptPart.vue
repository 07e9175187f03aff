<script setup lang="ts">
import { ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { sizeWords } from '../../../shared/size'
import AskOnce from '../../AskOnce.vue'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** Until when papers are kept, and what is held beyond that. */
const t = text.folders
const { value: view, problem, load } = useRead(['retention'], desk.retention, { on: (event) => ['filing', 'basket', 'round'].includes(event.type) })
const holding = ref<number>()
const reason = ref('')
const { problem: refused, busy, submit } = useSubmit(async () => {
  await desk.holdRound(holding.value!, reason.value)
  holding.value = undefined
  reason.value = ''
  say(t.held2)
  await load()
})

function what(row: Schemas['KeptRound']): string {
  if (row.held !== null) return t.held(row.heldBy ?? '', row.held)
  if (row.files === 0) return row.purged > 0 ? t.gone : ''
  if (!row.due) return t.coming
  return row.state === 'GATHERING' ? t.dueGathering : t.due
}
const day = (date: string) => new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(new Date(`${date}T12:00:00Z`))

async function release(row: Schemas['KeptRound']) {
  try {
    await desk.releaseRound(row.roundId)
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <section>
    <p class="quiet">{{ t.keptIntro }}</p>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!view && !problem" />
    <EmptyPart v-if="view && view.rounds.length === 0" :words="t.keptNone" />
    <table v-if="view && view.rounds.length > 0" class="plain">
      <thead><tr><th scope="col">{{ t.round }}</th><th scope="col">{{ t.until }}</th><th scope="col">{{ t.there }}</th><th scope="col">{{ t.state }}</th><th scope="col"><span class="hidden-text">{{ t.hold }}</span></th></tr></thead>
      <tbody>
        <tr v-for="row in view.rounds" :key="row.roundId">
          <td><RouterLink :to="{ name: 'round', params: { id: row.roundId } }">{{ row.round }}</RouterLink></td>
          <td>{{ day(row.keepUntil) }}</td>
          <td>{{ row.files }}, {{ sizeWords(row.bytes) }}<p v-if="row.purged" class="quiet">{{ t.purged }}: {{ row.purged }} <a :href="`/api/retention/${row.roundId}/record.csv`" download>{{ t.record }}</a></p></td>
          <td>
            {{ what(row) }}
            <form v-if="holding === row.roundId" novalidate @submit.prevent="submit" @keydown.esc.stop="holding = undefined">
              <FieldBox id="hold-why" v-slot="{ attrs }" :label="t.holdWhy" :error="refused?.at('reason') || (refused && refused.errors.length === 0 ? refused.detail : '')"><ElInput v-bind="attrs" v-model="reason" /></FieldBox>
              <ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ t.hold }}</ElButton>
            </form>
          </td>
          <td>
            <ElButton v-if="row.held === null && row.files > 0" size="small" :aria-label="`${t.hold}: ${row.round}`" :aria-expanded="holding === row.roundId" @click="holding = holding === row.roundId ? undefined : row.roundId">{{ t.hold }}</ElButton>
            <AskOnce v-if="row.held !== null" plain small :label="t.release" :name="`${t.release}: ${row.round}`" :question="t.releaseAsk" @sure="release(row)" />
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
td {
  vertical-align: top;
}
td p {
  margin: 0;
}
</style>
