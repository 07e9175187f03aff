<script setup lang="ts">
import { computed, onMounted, onUnmounted, reactive, ref } from 'vue'
import type { UploadFile } from 'element-plus'
import { ApiProblem } from '../../../api/problem'
import { putIn } from '../../../api/put-in'
import PlainName from '../../../shared/PlainName.vue'
import { text } from '../../../text/desk'
import { say, sayProblem } from '../../say'

/** Takes papers that came by post, by mail or on a stick; one after another, each with what became of it. */
const emit = defineEmits<{ put: [] }>()
const t = text.tray
const waiting = reactive<File[]>([])
const refused = reactive<{ name: string; problem: ApiProblem }[]>([])
const share = ref(0)
const now = computed(() => waiting[0])
let running = false
/** Whoever looks at something else meanwhile is told of a refusal there. */
let elsewhere = false

function take(chosen: UploadFile) {
  if (chosen.raw) waiting.push(chosen.raw)
  void run()
}

async function run() {
  if (running) return
  running = true
  let put = 0
  while (waiting[0]) {
    const file = waiting[0]
    share.value = 0
    try {
      await putIn(file, (gone) => (share.value = gone))
      put++
    } catch (error) {
      refused.push({ name: file.name, problem: error as ApiProblem })
      if (elsewhere) sayProblem(error)
    }
    waiting.shift()
    emit('put')
  }
  running = false
  if (elsewhere) window.removeEventListener('beforeunload', stay)
  if (put > 0) say(t.putDone(put))
}

/** What is under way is lost when the page goes; the browser asks first. */
function stay(event: BeforeUnloadEvent) {
  if (waiting.length > 0) event.preventDefault()
}
onMounted(() => window.addEventListener('beforeunload', stay))
onUnmounted(() => {
  elsewhere = true
  if (waiting.length === 0) window.removeEventListener('beforeunload', stay)
})
</script>

<template>
  <section class="put" :aria-label="t.put">
    <ElUpload drag multiple :auto-upload="false" :show-file-list="false" :on-change="take">
      <strong>{{ t.put }}</strong> <span class="quiet">{{ t.putHint }}</span>
    </ElUpload>
    <p v-if="now" class="progress" role="status"><PlainName class="mono" :name="now.name" /> <span class="quiet">{{ t.putLeft(waiting.length) }}</span></p>
    <ElProgress v-if="now" :percentage="Math.floor(share * 100)" :aria-label="now.name" />
    <ul v-if="refused.length > 0">
      <li v-for="(one, n) in refused" :key="n" class="error" role="alert">
        <PlainName class="mono" :name="one.name" />: {{ one.problem.title }}. {{ one.problem.detail }} <ElButton size="small" :aria-label="`${t.dismiss}: ${one.name}`" @click="refused.splice(n, 1)">{{ t.dismiss }}</ElButton>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.put {
  margin: 10px 0 14px;
}
.put :deep(.el-upload-dragger) {
  padding: 12px 16px;
  text-align: left;
}
.progress {
  margin: 8px 0 2px;
}
ul {
  padding: 0;
  list-style: none;
}
</style>
