<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type Schemas } from '../../../api/desk'
import type { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import FoldedPart from '../../fields/FoldedPart.vue'
import { say, sayProblem } from '../../say'
import FieldBox from '../compose/FieldBox.vue'

/** The words of one kind of letter, with a look at how they read. */
const props = defineProps<{ kept: Schemas['KeptText']; language: string; person?: { id: number; name: string }; reload: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.post
const form = reactive({ subject: '', body: '' })
const direction = computed(() => (props.language === 'ar' ? 'rtl' : 'ltr'))
/** Offered as soon as a brace is typed. */
const fields = Object.entries(t.fields).map(([name, words]) => ({ value: `${name}}`, label: `{${name}} ${words}` }))
const example = ref<Schemas['LetterLook']>()

watch(
  () => props.kept,
  (kept, before) => {
    // A reload for another reason leaves what is being typed alone.
    if (kept.version === before.version && kept.body === before.body && kept.subject === before.subject) return
    example.value = undefined
  },
)

const { conflicts, asked, problem, submit, decide, anew } = useBoth(form, {
  kept: () => ({ subject: props.kept.subject, body: props.kept.body }),
  version: () => props.kept.version,
  reload: props.reload,
  send: () => desk.keepLetterText(props.kept.kind, props.language, props.kept.version, form.subject, form.body),
  done: () => {
    say(t.saved)
    emit('changed')
  },
})

async function save() {
  await submit()
  if (problem.value && problem.value.errors.length === 0) sayProblem(problem.value)
}

async function tryTo(work: () => Promise<void>) {
  try {
    await work()
    problem.value = undefined
  } catch (error) {
    problem.value = error as ApiProblem
    if (problem.value.errors.length === 0) sayProblem(error)
  }
}

const look = () => tryTo(async () => void (example.value = await desk.letterTextExample(props.kept.kind, props.language, props.person?.id ?? null, form.subject, form.body)))

const reset = () =>
  tryTo(async () => {
    const language = props.language
    const before = { subject: props.kept.subject, body: props.kept.body, kind: props.kept.kind }
    await desk.resetLetterText(props.kept.kind, language)
    anew()
    emit('changed')
    say(t.wasReset, { label: text.panel.undo, run: () => void desk.keepLetterText(before.kind, language, 0, before.subject, before.body).then(() => emit('changed'), sayProblem) })
  })
</script>

<template>
  <FoldedPart class="text" :label="t.kinds[kept.kind]!" :more="kept.subject">
    <BothVersions v-if="asked" :conflicts="conflicts" :names="{ subject: t.subject, body: t.body }" @decide="decide" />
    <form novalidate @submit.prevent="save">
      <FieldBox :id="`subject-${kept.kind}`" v-slot="{ attrs }" :label="t.subject" :error="problem?.at('subject')"><ElMention v-bind="attrs" v-model="form.subject" prefix="{" split="" :options="fields.filter((one) => one.value !== 'papers}')" :dir="direction" :lang="language" :maxlength="limits.TypedText.subject.longest" /></FieldBox>
      <FieldBox :id="`body-${kept.kind}`" v-slot="{ attrs }" :label="t.body" :error="problem?.at('body')"><ElMention v-bind="attrs" v-model="form.body" type="textarea" :rows="12" prefix="{" split="" :options="fields" :dir="direction" :lang="language" /></FieldBox>
      <div class="actions">
        <ElButton type="primary" native-type="submit" :disabled="form.subject === kept.subject && form.body === kept.body">{{ t.save }}</ElButton>
        <ElButton @click="look">{{ t.look }}</ElButton>
        <ElButton v-if="kept.version > 0" type="primary" link @click="reset">{{ t.reset }}</ElButton>
      </div>
      <article v-if="example" aria-live="polite">
        <p class="quiet">{{ person ? t.exampleOf(person.name) : t.example }}</p>
        <h4 :dir="direction" :lang="language">{{ example.subject }}</h4>
        <p class="body" :dir="direction" :lang="language">{{ example.body }}</p>
      </article>
    </form>
  </FoldedPart>
</template>

<style scoped>
.text {
  margin: 0;
}
form {
  margin-top: 12px;
}
.actions {
  display: flex;
  gap: 10px;
}
article {
  margin-top: 14px;
  padding: 18px 22px;
  border: 1px solid var(--line);
  border-top: 6px double var(--oak);
  background: var(--card);
}
h4 {
  margin: 6px 0 10px;
  font: 600 17px var(--heading);
}
.body {
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
</style>
