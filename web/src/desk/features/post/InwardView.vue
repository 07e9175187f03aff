<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import PlainName from '../../../shared/PlainName.vue'
import { dayAndTime } from '../../../shared/time'
import { useRead } from '../../queries'
import { sayProblem } from '../../say'
import InwardSheet from './InwardSheet.vue'
import PostTabs from './PostTabs.vue'

/** What came by mail: papers, answers, and what could not be read. */
const t = text.inward
const WAIT_MILLISECONDS = 400
const route = useRoute()
const router = useRouter()
const all = ref(false)
const find = ref('')
const words = refDebounced(find, WAIT_MILLISECONDS)
const shown = computed(() => (route.query.message ? Number(route.query.message) : undefined))
const { value: first, problem, load } = useRead(computed(() => ['inward', all.value, words.value.trim()]), () => desk.inward(all.value, words.value.trim(), undefined, undefined), { on: (event) => event.type === 'letter' })
const { value: post } = useRead(['post'], desk.post, { on: (event) => event.type === 'letter' })
const older = ref<Schemas['MailedMessage'][]>([])
const page = computed(() => first.value && { ...first.value, messages: [...first.value.messages, ...older.value] })
const busy = ref(false)
watch(first, () => (older.value = []))

async function more() {
  try {
    older.value.push(...(await desk.inward(all.value, words.value.trim(), undefined, page.value!.messages.at(-1)!.id)).messages)
  } catch (error) {
    sayProblem(error)
  }
}

async function look() {
  busy.value = true
  try {
    await desk.lookIntoMailbox()
  } catch (error) {
    sayProblem(error)
  }
  await load()
  busy.value = false
}

const fresh = (one: Schemas['MailedMessage']) => !one.read && ['PAPERS', 'ANSWER', 'TOO_LARGE', 'UNREADABLE'].includes(one.kind)
</script>

<template>
  <div class="page">
    <header><h1>{{ text.post.title }}</h1></header>
    <PostTabs />
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!page && !problem" />
    <template v-if="page">
      <p class="quiet">{{ page.reads ? t.intro(post?.collecting ?? '') : t.off }}</p>
      <p v-if="page.trouble" class="failure">{{ t.trouble(page.trouble) }}</p>
      <div v-if="page.reads || page.messages.length > 0" class="tools">
        <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
        <ElCheckbox v-model="all">{{ t.all }}</ElCheckbox>
        <ElButton :loading="busy" @click="look">{{ t.look }}</ElButton>
      </div>
      <EmptyPart v-if="page.messages.length === 0 && page.reads" :words="find ? t.noneFound : t.none" />
      <div v-else-if="page.messages.length > 0" class="columns">
        <div>
          <table class="plain">
            <thead>
              <tr>
                <th scope="col">{{ t.from }}</th>
                <th scope="col">{{ t.subject }}</th>
                <th scope="col">{{ t.at }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in page.messages" :key="one.id" :class="{ here: one.id === shown, fresh: fresh(one) }">
                <td>
                  <ElButton class="name" type="primary" link :aria-pressed="one.id === shown" @click="router.replace({ query: { message: one.id } })"><PlainName :name="one.name || one.fromName || one.fromAddress" /></ElButton>
                  <span v-if="fresh(one)" class="mark">{{ t.unread }}</span>
                </td>
                <td>
                  <PlainName :name="one.subject || t.noSubject" /> <span class="quiet line">{{ t.kinds[one.kind] }}<template v-if="one.round">, {{ t.aboutRound(one.round) }}</template></span>
                </td>
                <td>{{ dayAndTime(one.at) }}</td>
              </tr>
            </tbody>
          </table>
          <ElButton v-if="page.more" class="more" @click="more">{{ t.more }}</ElButton>
        </div>
        <InwardSheet v-if="shown" :key="shown" :message-id="shown" @changed="load" />
        <p v-else class="quiet choose">{{ t.choose }}</p>
      </div>
    </template>
  </div>
</template>

<style scoped src="./post.css"></style>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  margin: 12px 0;
}
.find {
  width: 260px;
}
th:first-child {
  width: 30%;
}
th:last-child {
  width: 24%;
}
.name {
  height: auto;
  text-align: left;
  white-space: normal;
}
.fresh .name {
  font-weight: 600;
}
.mark {
  display: block;
  color: var(--acorn-text);
  font-size: 15px;
}
</style>
