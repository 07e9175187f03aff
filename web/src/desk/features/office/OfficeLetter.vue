<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import FileButton from '../../fields/FileButton.vue'
import { choices } from '../../fields/choices'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** One letter as the person who got it reads it, with what they and their mailbox may do. */
type Mood = NonNullable<Schemas['TypedMood']['mood']>
const props = defineProps<{ letter: Schemas['PretendLetter']; mood: Schemas['TypedMood']['mood'] }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.office
const side = ref('text')
const words = ref('')
const file = ref<File>()
/** Nothing may be styled here but by what ships; what is shown is the letter's own marks. */
const page = computed(() => props.letter.html.replace(/ style="[^"]*"/g, ''))

async function act(work: () => Promise<unknown>, said: string) {
  try {
    await work()
    say(said)
  } catch (error) {
    sayProblem(error)
  }
  emit('changed')
}

const { problem, busy, submit } = useSubmit(async () => {
  await desk.answerAs(props.letter.id, words.value, file.value, false)
  words.value = ''
  file.value = undefined
  say(t.sent)
  emit('changed')
})

const setMood = (mood: Mood) => act(() => desk.setMood(props.letter.to, mood), t.moodSet(props.letter.to, t.moods[mood]!))
</script>

<template>
  <section class="letter" :aria-label="letter.subject">
    <FieldBox id="mood" v-slot="{ attrs }" :label="t.address(letter.to)">
      <ChoiceField v-bind="attrs" :model-value="mood ?? 'TAKE'" :choices="choices(t.moods as Record<Mood, string>)" @update:model-value="setMood" />
    </FieldBox>
    <article>
      <h2 dir="auto">{{ letter.subject }}</h2>
      <ElTabs v-model="side">
        <ElTabPane name="text" :label="t.asText"><p class="body" dir="auto">{{ letter.text }}</p></ElTabPane>
        <ElTabPane name="page" :label="t.asPage" lazy><iframe :srcdoc="page" sandbox="" :title="t.frame" /></ElTabPane>
      </ElTabs>
      <p v-if="letter.attachments.length > 0" class="quiet">{{ t.attached(letter.attachments.join(', ')) }}</p>
    </article>
    <form novalidate @submit.prevent="submit">
      <FieldBox id="answer" v-slot="{ attrs }" :label="t.answerText" :hint="t.answerHint" :error="problem?.at('text') || (problem && problem.errors.length === 0 ? problem.detail : '')">
        <ElInput v-bind="attrs" v-model="words" type="textarea" :rows="3" />
      </FieldBox>
      <p><FileButton :label="t.file" @file="(one) => (file = one)" /> <span class="quiet mono">{{ file?.name ?? t.noFile }}</span></p>
      <div class="actions">
        <ElButton type="primary" native-type="submit" :loading="busy" :disabled="!words.trim() && !file">{{ t.send }}</ElButton>
        <ElButton @click="act(() => desk.answerAs(letter.id, '', undefined, true), t.sent)">{{ t.away }}</ElButton>
        <ElButton @click="act(() => desk.bounceLetter(letter.id), t.bounced)">{{ t.bounce }}</ElButton>
      </div>
    </form>
  </section>
</template>

<style scoped src="../post/post.css"></style>

<style scoped>
iframe {
  width: 100%;
  height: 420px;
  border: 1px solid var(--line);
  background: #fff;
}
</style>
