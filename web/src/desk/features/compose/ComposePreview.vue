<script setup lang="ts">
import { ref, watch } from 'vue'
import { desk, type LetterKind, type RoundSheet, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import { choices } from '../../fields/choices'
import OakMark from '../../../shared/OakMark.vue'
import { session } from '../../use-session'
import { useExample } from './use-example'

const props = defineProps<{ sheet: RoundSheet; roundId: number | undefined; savedAt: string; ready: boolean }>()
const t = text.compose
const side = ref<'sender' | 'letter' | 'filing'>('sender')
const letter = ref<Schemas['LetterLook']>()
const kind = ref<LetterKind>('INVITATION')
const language = ref('en')
const { paths } = useExample(props.sheet)
const chosenKinds = (kinds: string[]) => (kinds.length ? kinds.map((kind) => text.kinds[kind]).join(', ') : t.anyKind)

watch(
  () => [side.value, props.savedAt, props.ready, kind.value, language.value],
  async () => {
    if (side.value === 'letter') letter.value = props.ready && props.roundId ? await desk.letterExample(props.roundId, kind.value, language.value).catch(() => undefined) : undefined
  },
)

function deadline(): string {
  if (!props.sheet.deadlineDate) return '…'
  const day = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(new Date(props.sheet.deadlineDate + 'T12:00:00Z'))
  return `${day}${props.sheet.deadlineTime ? ' at ' + props.sheet.deadlineTime : ', end of the day'}`
}
</script>

<template>
  <aside class="preview" :aria-label="t.preview">
    <ElTabs v-model="side">
      <ElTabPane name="sender" :label="t.asSender" />
      <ElTabPane name="letter" :label="text.post.preview" />
      <ElTabPane name="filing" :label="t.filing" />
    </ElTabs>
    <div v-if="side === 'sender'" class="phone">
      <p class="office"><OakMark :size="22" /> {{ session?.office }}</p>
      <h3>{{ sheet.title || t.untitled }}</h3>
      <p class="note">{{ sheet.note }}</p>
      <p class="deadline">{{ t.by }} <strong>{{ deadline() }}</strong></p>
      <div v-for="(item, n) in sheet.items" :key="n" class="card">
        <strong>{{ item.title || t.untitledItem }}</strong> <span class="quiet">{{ item.required ? text.round.required : text.round.optional }}</span>
        <p v-if="item.help">{{ item.help }}</p>
        <p class="quiet">{{ chosenKinds(item.kinds) }}</p>
      </div>
    </div>
    <div v-else-if="side === 'letter'" class="filing">
      <div class="which">
        <ChoiceField v-model="kind" small :label="text.post.letter" :choices="choices(text.post.kinds as Record<LetterKind, string>).filter((one) => one.value !== 'PARCEL' && one.value !== 'PICK_UP')" />
        <ChoiceField v-model="language" small :label="text.post.language" :choices="choices<string>(text.post.languages)" />
      </div>
      <template v-if="letter">
        <h3 :lang="letter.language" dir="auto">{{ letter.subject }}</h3>
        <p class="body" :lang="letter.language" :dir="letter.language === 'ar' ? 'rtl' : 'ltr'">{{ letter.body }}</p>
      </template>
      <p v-else class="quiet">{{ text.post.previewNote }}</p>
    </div>
    <div v-else class="filing">
      <p>{{ t.filingNote }}</p>
      <p v-for="path in paths" :key="path" class="mono path">
        <template v-for="(segment, n) in path.split('/')" :key="n"><span class="segment" :class="`depth-${Math.min(n, 8)}`">{{ segment }}</span></template>
      </p>
    </div>
  </aside>
</template>

<style scoped>
.which {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin-bottom: 12px;
}
.preview {
  position: sticky;
  top: 16px;
}
.phone,
.filing {
  max-height: 72vh;
  padding: 18px;
  overflow: auto;
  border: 1px solid var(--line);
  background: var(--paper);
}
.phone {
  border: 1px solid var(--line-strong);
  border-radius: 14px;
}
.office {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--oak);
}
.note {
  white-space: pre-line;
}
.deadline {
  margin: 12px 0;
  padding-left: 10px;
  border-left: 4px solid var(--moss);
}
.card {
  margin-top: 8px;
  padding: 10px 12px;
  border: 1px solid var(--line);
  border-radius: var(--corner);
  background: var(--card);
}
.body {
  margin-top: 10px;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
.path {
  margin-top: 12px;
}
.segment {
  display: block;
}
.depth-1 {
  padding-left: 16px;
}
.depth-2 {
  padding-left: 32px;
}
.depth-3 {
  padding-left: 48px;
}
.depth-4 {
  padding-left: 64px;
}
.depth-5 {
  padding-left: 80px;
}
.depth-6 {
  padding-left: 96px;
}
.depth-7 {
  padding-left: 112px;
}
.depth-8 {
  padding-left: 128px;
}
</style>
