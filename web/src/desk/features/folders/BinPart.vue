<script setup lang="ts">
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'

/** What was taken out, until when it can be put back. */
const t = text.folders
const { value: view, problem, load } = useRead(['retention'], desk.retention, { on: (event) => ['filing', 'basket', 'round'].includes(event.type) })

async function restore(row: Schemas['BinRow']) {
  try {
    await desk.restoreFile(row.fileId)
    say(t.restored(row.name))
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <section>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!view && !problem" />
    <template v-if="view">
      <p class="quiet">{{ t.binIntro(view.binDays) }}</p>
      <EmptyPart v-if="view.bin.length === 0" :words="t.binNone" />
      <table v-else class="plain">
        <thead><tr><th scope="col">{{ t.name }}</th><th scope="col">{{ t.whose }}</th><th scope="col">{{ t.reason }}</th><th scope="col">{{ t.empties }}</th><th scope="col"><span class="hidden-text">{{ t.restore }}</span></th></tr></thead>
        <tbody>
          <tr v-for="row in view.bin" :key="row.fileId">
            <td class="mono path">{{ row.path }}</td>
            <td>{{ row.person }}<p class="quiet">{{ row.round }}</p></td>
            <td>{{ row.reason }}<p class="quiet">{{ row.removedBy }}, {{ dayAndTime(row.removedAt) }}</p></td>
            <td>{{ row.held ? t.heldFor : dayAndTime(row.emptiedAt) }}</td>
            <td><ElButton size="small" :aria-label="`${t.restore}: ${row.name}`" @click="restore(row)">{{ t.restore }}</ElButton></td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
.path {
  overflow-wrap: anywhere;
  font-size: 14px;
}
td {
  vertical-align: top;
}
td p {
  margin: 0;
}
</style>
