<script setup lang="ts">
import { computed } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import IdentityMark from '../../../shared/IdentityMark.vue'
import PlainName from '../../../shared/PlainName.vue'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import AskOnce from '../../AskOnce.vue'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'

type Held = Schemas['Held']

/** Files that nobody may open: what was found in them, whose they are, and what to do with each. */
const t = text.quarantine
const { value: quarantine, problem, load } = useRead(['quarantine'], desk.quarantine, { on: (event) => event.type === 'held' })
const lists = computed(() => [
  { title: t.found, note: t.foundNote, files: quarantine.value?.files.filter((one) => !one.waits) ?? [] },
  { title: t.waiting, note: t.waitingNote, files: quarantine.value?.files.filter((one) => one.waits) ?? [] },
].filter((list) => list.files.length > 0))

async function decide(file: Held, what: 'release' | 'destroy') {
  try {
    await (what === 'release' ? desk.release(file.id) : desk.destroy(file.id))
    say(what === 'release' ? t.released(file.name) : t.destroyed(file.name))
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <div class="page">
    <header><h1>{{ t.title }}</h1></header>
    <p class="quiet intro">{{ t.intro }}</p>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!quarantine && !problem" />
    <EmptyPart v-if="quarantine && quarantine.files.length === 0" :words="t.none" />
    <p v-if="quarantine && quarantine.count > quarantine.files.length" class="quiet">{{ t.newestOnly(quarantine.files.length, quarantine.count) }}</p>
    <section v-for="list in lists" :key="list.title">
      <h2>{{ list.title }} ({{ list.files.length }})</h2>
      <p class="quiet">{{ list.note }}</p>
      <table class="plain">
        <thead>
          <tr><th scope="col">{{ t.file }}</th><th scope="col">{{ t.sender }}</th><th scope="col">{{ t.forWhat }}</th><th scope="col">{{ t.came }}</th><th scope="col"><span class="hidden-text">{{ t.actions }}</span></th></tr>
        </thead>
        <tbody>
          <tr v-for="one in list.files" :key="one.id">
            <td><PlainName class="mono" :name="one.name" /> <span class="quiet">{{ sizeWords(one.bytes) }}</span><p v-if="one.found" class="error">{{ t.foundIn(one.found) }}</p></td>
            <td>
              <RouterLink v-if="one.basketId" :to="{ name: 'round', params: { id: one.roundId }, query: { basket: one.basketId } }">{{ one.person }}</RouterLink>
              <template v-else>{{ one.person }}</template>
              {{ ' ' }}<IdentityMark :identity="one.identity" />
            </td>
            <td>{{ one.item }}<p class="quiet">{{ one.round }}</p></td>
            <td>{{ dayAndTime(one.receivedAt) }}</td>
            <td class="decide">
              <AskOnce plain small :label="t.release" :name="`${t.release} ${one.name}`" :question="one.waits ? t.releaseUnchecked(one.name) : t.releaseFound(one.name, one.found)" @sure="decide(one, 'release')" />
              <AskOnce plain small :label="t.destroy" :name="`${t.destroy} ${one.name}`" :question="t.destroyAsk(one.name)" @sure="decide(one, 'destroy')" />
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>

<style scoped>
section {
  margin-top: 20px;
}
.intro {
  max-width: 70ch;
}
td {
  vertical-align: top;
  overflow-wrap: anywhere;
}
.decide {
  white-space: nowrap;
}
.decide .el-button + .el-button {
  margin-left: 8px;
}
</style>
