<script setup lang="ts">
import { ref } from 'vue'
import { desk, type CameFile, type ExchangeInFull, type Review } from '../../../api/desk'
import { limits } from '../../../api/limits'
import type { ApiProblem } from '../../../api/problem'
import FilePreview from '../../../shared/FilePreview.vue'
import PlainName from '../../../shared/PlainName.vue'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import { text } from '../../../text/desk'
import FileButton from '../../fields/FileButton.vue'
import { say, sayProblem } from '../../say'
import { may } from '../../use-session'
import { useUploads } from '../parcels/use-uploads'

/** What the person put in. A paper that is returned can be answered at once by a corrected one, which lies on the other side then. */
const props = defineProps<{ full: ExchangeInFull }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.exchanges
const id = props.full.exchange.id
const shown = ref<number>()
const returning = ref<number>()
const reason = ref('')
const corrected = ref<File>()
const { take } = useUploads(id, async () => (await desk.exchange(id)).files, () => emit('changed'), (problem: ApiProblem) => sayProblem(problem))

async function decide(file: CameFile, to: Review, why: string) {
  await desk.review(file.id, file.review, to, why)
}

async function accept(file: CameFile) {
  try {
    await decide(file, 'ACCEPTED', '')
    say(t.accepted, { label: t.undo, run: () => void desk.review(file.id, 'ACCEPTED', file.review, '').then(() => emit('changed'), sayProblem) })
  } catch (error) {
    sayProblem(error)
  }
  emit('changed')
}

function begin(file: CameFile) {
  returning.value = returning.value === file.id ? undefined : file.id
  reason.value = ''
  corrected.value = undefined
}

async function giveBack(file: CameFile) {
  const along = corrected.value
  try {
    await decide(file, 'RETURNED', reason.value.trim())
    returning.value = undefined
    // Where the corrected file cannot be taken, that was said; the paper is returned all the same.
    const [place] = along ? await take([along], []) : []
    if (along && place !== undefined) await desk.fileAnswers(id, place, file.id)
    say(along && place !== undefined ? t.returnedWith(along.name) : t.returnedNow)
  } catch (error) {
    sayProblem(error)
  }
  emit('changed')
}
</script>

<template>
  <section :aria-label="t.from(full.exchange.person)">
    <h2>{{ t.from(full.exchange.person) }} <span class="quiet">{{ t.files(full.received.length) }}</span></h2>
    <p v-if="!full.exchange.putIn" class="quiet">{{ t.fromOff }}</p>
    <p v-else-if="full.received.length === 0" class="quiet">{{ t.fromNone }}</p>
    <ul>
      <li v-for="file in full.received" :key="file.id">
        <div class="line">
          <span class="what">
            <PlainName class="mono" :name="file.name" />
            <span class="quiet">{{ dayAndTime(file.at) }}, {{ sizeWords(file.bytes) }}, <strong :class="file.review">{{ t.reviews[file.review] }}</strong><template v-if="file.reason">: {{ file.reason }}</template></span>
            <span v-for="name in file.answered" :key="name" class="quiet">{{ t.answeredBy(name) }}</span>
          </span>
          <span class="ways">
            <ElButton size="small" :aria-expanded="shown === file.id" :aria-label="shown === file.id ? t.hideNamed(file.name) : t.showNamed(file.name)" @click="shown = shown === file.id ? undefined : file.id">{{ shown === file.id ? t.hide : t.show }}</ElButton>
            <template v-if="may('CHANGE')">
              <ElButton v-if="file.review === 'NONE'" size="small" :aria-label="t.acceptNamed(file.name)" @click="accept(file)">{{ t.accept }}</ElButton>
              <ElButton v-if="file.review !== 'RETURNED'" size="small" :aria-expanded="returning === file.id" :aria-label="t.giveBackNamed(file.name)" @click="begin(file)">{{ t.giveBack }}</ElButton>
            </template>
          </span>
        </div>
        <form v-if="returning === file.id" class="back" novalidate @submit.prevent="giveBack(file)">
          <label :for="`reason-${file.id}`">{{ t.reason }}</label>
          <ElInput :id="`reason-${file.id}`" v-model="reason" :maxlength="limits.Decision.reason.longest" />
          <div class="ways">
            <FileButton v-if="may('HAND_OUT')" small :label="t.corrected" @file="(file) => (corrected = file)" />
            <span v-if="corrected" class="quiet" role="status">{{ t.correctedChosen(corrected.name) }}</span>
          </div>
          <div class="ways"><ElButton type="primary" size="small" native-type="submit" :disabled="!reason.trim()">{{ t.returnNow }}</ElButton><ElButton size="small" @click="returning = undefined">{{ t.cancel }}</ElButton></div>
        </form>
        <FilePreview v-if="shown === file.id" :id="file.id" :name="file.name" :media-type="file.mediaType" />
      </li>
    </ul>
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
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.line {
  display: flex;
  gap: 10px;
  align-items: start;
  justify-content: space-between;
}
.what {
  display: grid;
  min-width: 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.ways :deep(.el-button + .el-button) {
  margin-left: 0;
}
.back {
  display: grid;
  gap: 8px;
  margin: 8px 0;
  padding: 10px 12px;
  border-inline-start: 4px solid var(--rowan);
  background: var(--paper);
}
.RETURNED {
  color: var(--rowan);
}
.NONE {
  color: var(--acorn-text);
}
.ACCEPTED {
  color: var(--leaf-deep);
}
</style>
