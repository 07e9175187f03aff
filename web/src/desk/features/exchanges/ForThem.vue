<script setup lang="ts">
import { computed } from 'vue'
import { desk, type ExchangeInFull, type LyingFile } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import PlainName from '../../../shared/PlainName.vue'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import { text } from '../../../text/desk'
import FindBox from '../../fields/FindBox.vue'
import FoldedPart from '../../fields/FoldedPart.vue'
import { say, sayProblem } from '../../say'
import { may } from '../../use-session'
import { findReceived, gatherChosen, type PickChoice } from '../parcels/use-picking'
import { useUploads } from '../parcels/use-uploads'

/** What lies there for the person: put in here, picked among what came in, or taken back. */
const props = defineProps<{ full: ExchangeInFull }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.exchanges
const p = text.parcels
const id = props.full.exchange.id
const { under, take, drop } = useUploads(id, async () => (await desk.exchange(id)).files, () => emit('changed'), (problem: ApiProblem) => sayProblem(problem))
const chosen = gatherChosen((files) => void take(files, props.full.files))

async function work(what: () => Promise<unknown>) {
  try {
    await what()
  } catch (error) {
    sayProblem(error)
  }
  emit('changed')
}

const pick = (choice: PickChoice) => work(() => desk.pickFiles(id, [choice.id]))
const putBack = (file: LyingFile) => work(() => desk.putFileBack(id, file.id))
const takeBack = (file: LyingFile) => work(async () => {
  drop(file.id)
  await desk.removeParcelFile(id, file.id)
  if (file.state === 'READY') say(t.tookBack(file.name), { label: t.undo, run: () => void putBack(file) })
})
const share = (file: LyingFile) => Math.floor(((under.get(file.id)?.came ?? file.came) / file.bytes) * 100)
const nobodySees = computed(() => !props.full.exchange.see && !props.full.exchange.takeAway)
</script>

<template>
  <section :aria-label="t.for(full.exchange.person)">
    <h2>{{ t.for(full.exchange.person) }} <span class="quiet">{{ t.files(full.files.length) }}</span></h2>
    <p v-if="nobodySees" class="soon">{{ t.forOff }}</p>
    <p v-if="full.files.length === 0" class="quiet">{{ t.forNone(full.exchange.person) }}</p>
    <ul>
      <li v-for="file in full.files" :key="file.id">
        <span class="what">
          <PlainName class="mono" :name="file.name" />
          <span class="quiet">
            {{ sizeWords(file.bytes) }}<template v-if="file.picked">, {{ p.pickedFrom }}</template><template v-if="file.answers">, {{ t.answersFile(file.answers) }}</template><template v-if="file.state === 'REFUSED'">: <strong class="error">{{ p.fileStates.REFUSED }}. {{ p.troubles[file.trouble] }}</strong></template>
            <template v-else-if="file.state !== 'READY' && file.state !== 'COMING'">, {{ p.fileStates[file.state] }}</template>
            <template v-else-if="file.state === 'READY'">; {{ file.taken > 0 && file.lastAt ? t.taken(file.taken, dayAndTime(file.lastAt)) : full.exchange.takeAway ? t.notTaken : '' }}</template><template v-if="file.unchecked">, <span class="soon">{{ p.unchecked }}</span></template>
          </span>
          <ElProgress v-if="file.state === 'COMING'" :percentage="share(file)" :aria-label="file.name" />
          <span v-if="file.state === 'COMING' && under.get(file.id)?.broken" class="quiet" role="status">{{ p.brokeOff }}</span>
          <span v-else-if="file.state === 'COMING' && !under.has(file.id)" class="soon">{{ p.goOnWith(file.name) }}</span>
        </span>
        <ElButton v-if="may('HAND_OUT')" size="small" :aria-label="t.takeBackNamed(file.name)" @click="takeBack(file)">{{ t.takeBack }}</ElButton>
      </li>
    </ul>
    <template v-if="may('HAND_OUT')">
      <ElUpload class="put" drag multiple :auto-upload="false" :show-file-list="false" :on-change="chosen"><strong>{{ t.put }}</strong> <span class="quiet">{{ t.putHint }}</span></ElUpload>
      <label :for="`pick-${id}`">{{ t.pick }}</label>
      <FindBox :id="`pick-${id}`" v-slot="{ choice }" :label="t.pick" :placeholder="p.pickHint" :none="p.pickNone" :find="findReceived" @pick="pick">{{ choice.name }} <span class="quiet">{{ choice.detail }}</span></FindBox>
      <FoldedPart v-if="full.takenBack.length > 0" :label="t.takenBack">
        <ul>
          <li v-for="file in full.takenBack" :key="file.id"><PlainName class="mono" :name="file.name" /><ElButton size="small" :aria-label="t.putBackNamed(file.name)" @click="putBack(file)">{{ t.putBack }}</ElButton></li>
        </ul>
      </FoldedPart>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 8px;
  font-size: 19px;
}
h2 .quiet {
  font: 400 15px var(--text);
}
ul {
  margin: 0 0 10px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 10px;
  align-items: start;
  justify-content: space-between;
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.what {
  display: grid;
  flex: 1;
  min-width: 0;
}
.put {
  margin-bottom: 10px;
}
.put :deep(.el-upload-dragger) {
  padding: 12px 16px;
  text-align: left;
}
.soon {
  color: var(--acorn-text);
}
</style>
