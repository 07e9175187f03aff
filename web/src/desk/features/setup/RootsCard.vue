<script setup lang="ts">
import { reactive } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { sizeWords } from '../../../shared/size'
import AskOnce from '../../AskOnce.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** The folder roots: what each disk can do, adding one, taking one out of use. */
const t = text.roots
const { value: roots, load } = useRead(['roots'], desk.roots, { on: (event) => event.type === 'filing' })
const form = reactive({ name: '', path: '' })
const { problem, busy, submit } = useSubmit(async () => {
  const added = await desk.addRoot(form)
  say(t.added(added.name))
  Object.assign(form, { name: '', path: '' })
  await load()
})

function state(root: Schemas['RootView']): string {
  if (!root.found.there) return t.away
  if (!root.found.writable) return t.notWritable
  return [t.there, root.found.freeBytes === null ? '' : t.free(sizeWords(root.found.freeBytes)), root.found.links ? '' : t.noLinks, root.found.sameDisk ? '' : t.otherDisk].filter(Boolean).join(', ')
}

async function remove(root: Schemas['RootView']) {
  try {
    await desk.removeRoot(root.id)
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <section class="setup-part" aria-labelledby="roots">
    <h2 id="roots">{{ t.title }}</h2>
    <p class="quiet">{{ t.intro }}</p>
    <ul>
      <li v-for="root in roots" :key="root.id">
        <strong>{{ root.name }}</strong> <span class="mono">{{ root.path || t.first }}</span>
        &#32;<span :class="root.found.writable ? 'quiet' : 'error'">{{ state(root) }}</span>
        <AskOnce v-if="root.path" small :label="t.remove" :name="`${t.remove}: ${root.name}`" :question="t.removeAsk(root.name)" @sure="remove(root)" />
      </li>
    </ul>
    <form novalidate @submit.prevent="submit">
      <FieldBox id="root-name" v-slot="{ attrs }" :label="t.name" :error="problem?.at('name')"><ElInput v-bind="attrs" v-model="form.name" /></FieldBox>
      <FieldBox id="root-path" v-slot="{ attrs }" :label="t.path" :error="problem?.at('path')"><ElInput v-bind="attrs" v-model="form.path" class="mono" spellcheck="false" /></FieldBox>
      <ElButton native-type="submit" :loading="busy">{{ t.add }}</ElButton>
    </form>
    <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.detail }}</p>
  </section>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 2fr auto;
  gap: 14px;
  align-items: start;
}
form > .el-button {
  margin-top: 28px;
}
</style>
