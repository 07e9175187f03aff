<script setup lang="ts">
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import PlainName from '../../../shared/PlainName.vue'
import { dayAndTime } from '../../../shared/time'
import { useRead } from '../../queries'
import { sayProblem } from '../../say'

/** One message that came by mail: what was written, what was attached and what became of it, and what was answered. */
const props = defineProps<{ messageId: number }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.inward
const { value: message, problem, load } = useRead(['inward-one', props.messageId], () => desk.inwardOne(props.messageId), { on: (event) => event.type === 'letter' || event.type === 'filing' })

async function read(now: boolean) {
  try {
    await desk.inwardRead(props.messageId, now)
  } catch (error) {
    sayProblem(error)
  }
  await load()
  emit('changed')
}

function answerWords(): string {
  const { answerState, answerTrouble } = message.value!
  return [t.answers[answerState] ?? answerState, answerTrouble].filter(Boolean).join(': ')
}
</script>

<template>
  <aside class="sheet" :aria-label="message?.subject || t.title">
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!message && !problem" />
    <template v-if="message">
      <p class="quiet">
        <RouterLink v-if="message.contactId" :to="{ name: 'contact', params: { id: message.contactId } }">{{ message.name }}</RouterLink>
        <PlainName v-else :name="message.fromName" /> &lt;<PlainName :name="message.fromAddress" />&gt;, {{ dayAndTime(message.at) }}
      </p>
      <p v-if="message.contactId" class="quiet">{{ message.confirmed ? t.confirmed : t.unconfirmed }}</p>
      <p v-if="message.why" class="note">{{ message.why }}</p>
      <article>
        <h2>{{ message.subject || t.noSubject }}</h2>
        <p class="body" dir="auto">{{ message.text }}</p>
      </article>
      <template v-if="message.parts.length > 0">
        <h3>{{ t.parts }}</h3>
        <ul>
          <li v-for="(part, n) in message.parts" :key="n">
            <PlainName :name="part.name" class="mono" />
            <span class="quiet">{{ ' ' }}{{ part.item ? t.filedFor(part.item) : t.outcomes[part.outcome] }}<template v-if="part.why">: {{ part.why }}</template></span>
            {{ ' ' }}<RouterLink v-if="part.outcome === 'TRAY'" to="/tray">{{ t.toTray }}</RouterLink>
          </li>
        </ul>
      </template>
      <p class="quiet">{{ answerWords() }}</p>
      <ElCollapse v-if="message.answer"><ElCollapseItem :title="t.answer"><p class="body" dir="auto">{{ message.answer }}</p></ElCollapseItem></ElCollapse>
      <div class="actions">
        <ElButton v-if="!message.read" type="primary" @click="read(true)">{{ t.read }}</ElButton>
        <ElButton v-else @click="read(false)">{{ t.notRead }}</ElButton>
        <RouterLink v-if="message.roundId && message.basketId" class="button" :to="{ name: 'round', params: { id: message.roundId }, query: { basket: message.basketId } }">{{ t.toBoard(message.round) }}</RouterLink>
        <RouterLink v-if="message.letterId" class="button" :to="{ name: 'post', query: { letter: message.letterId } }">{{ t.toLetter }}</RouterLink>
        <a v-if="message.kept" class="button" :href="`/api/inward/${message.id}/content`" download>{{ t.original }}</a>
      </div>
    </template>
  </aside>
</template>

<style scoped src="./post.css"></style>

<style scoped>
.sheet {
  position: sticky;
  top: 12px;
  max-height: calc(100vh - 40px);
  overflow: auto;
}
article {
  border-top: 1px solid var(--line);
  border-left: 6px double var(--leaf);
}
h3 {
  margin: 0 0 4px;
  font-size: 16px;
}
ul {
  margin: 0 0 10px;
  padding: 0;
  list-style: none;
}
</style>
