<script setup lang="ts">
import { computed, onMounted, onUnmounted } from 'vue'
import { desk, type ParcelInFull } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import PlainName from '../../../shared/PlainName.vue'
import { sizeWords } from '../../../shared/size'
import { text } from '../../../text/desk'
import FindBox from '../../fields/FindBox.vue'
import { sayProblem } from '../../say'
import { findReceived, gatherChosen, type PickChoice } from './use-picking'
import { useUploads } from './use-uploads'

/** The files of a draft: put in here, or picked among those that came in. */
const props = defineProps<{ full: ParcelInFull; error: string }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.parcels
const { under, take, drop } = useUploads(props.full.parcel.id, async () => (await desk.parcel(props.full.parcel.id)).files, () => emit('changed'), (problem: ApiProblem) => sayProblem(problem))
const chosen = gatherChosen((files) => void take(files, props.full.files))

async function pick(choice: PickChoice) {
  try {
    await desk.pickFiles(props.full.parcel.id, [choice.id])
    emit('changed')
  } catch (error) {
    sayProblem(error)
  }
}

async function remove(id: number) {
  drop(id)
  try {
    await desk.removeParcelFile(props.full.parcel.id, id)
  } catch (error) {
    sayProblem(error)
  }
  emit('changed')
}

const share = (id: number, came: number, bytes: number) => Math.floor(((under.get(id)?.came ?? came) / bytes) * 100)
const total = computed(() => props.full.files.reduce((sum, file) => sum + file.bytes, 0))

/** What is under way is lost to this page when it goes; the browser asks first. */
function stay(event: BeforeUnloadEvent) {
  if (under.size > 0) event.preventDefault()
}
onMounted(() => window.addEventListener('beforeunload', stay))
onUnmounted(() => window.removeEventListener('beforeunload', stay))
</script>

<template>
  <div class="files">
    <ElUpload drag multiple :auto-upload="false" :show-file-list="false" :on-change="chosen">
      <strong>{{ t.drop }}</strong> <span class="quiet">{{ t.dropHint }}</span>
    </ElUpload>
    <div class="pick">
      <label for="parcel-pick">{{ t.pick }}</label>
      <FindBox id="parcel-pick" v-slot="{ choice }" :label="t.pick" :placeholder="t.pickHint" :none="t.pickNone" :find="findReceived" @pick="pick">{{ choice.name }} <span class="quiet">{{ choice.detail }}</span></FindBox>
    </div>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <ul v-if="full.files.length > 0">
      <li v-for="file in full.files" :key="file.id" :class="file.state">
        <span class="what">
          <PlainName class="mono" :name="file.name" />
          <span class="quiet">
            {{ sizeWords(file.bytes) }}<template v-if="file.picked">, {{ t.pickedFrom }}</template><template v-if="file.state === 'REFUSED'">: <strong class="error">{{ t.fileStates.REFUSED }}. {{ t.troubles[file.trouble] }}</strong></template>
            <template v-else-if="file.state !== 'COMING'">, {{ t.fileStates[file.state] }}</template><template v-if="file.unchecked">, <span class="soon">{{ t.unchecked }}</span></template>
          </span>
          <ElProgress v-if="file.state === 'COMING'" :percentage="share(file.id, file.came, file.bytes)" :aria-label="file.name" />
          <span v-if="file.state === 'COMING' && under.get(file.id)?.broken" class="quiet" role="status">{{ t.brokeOff }}</span>
          <span v-else-if="file.state === 'COMING' && !under.has(file.id)" class="soon">{{ t.goOnWith(file.name) }}</span>
        </span>
        <ElButton type="primary" link size="small" :aria-label="t.removeFile(file.name)" @click="remove(file.id)">✕</ElButton>
      </li>
    </ul>
    <p v-if="full.files.length > 1" class="quiet">{{ t.fileCount(full.files.length) }}, {{ sizeWords(total) }}</p>
  </div>
</template>

<style scoped>
.files {
  display: grid;
  gap: 10px;
}
.files :deep(.el-upload-dragger) {
  padding: 14px 16px;
  text-align: left;
}
.pick {
  display: grid;
  gap: 4px;
}
ul {
  max-height: 340px;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}
li {
  display: flex;
  gap: 10px;
  align-items: start;
  justify-content: space-between;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.what {
  display: grid;
  flex: 1;
  min-width: 0;
}
.soon {
  color: var(--acorn-text);
}
</style>
