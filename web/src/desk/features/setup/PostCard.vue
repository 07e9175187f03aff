<script setup lang="ts">
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say, sayProblem } from '../../say'
import { useRead } from '../../queries'
import LetterSettingForm from './LetterSettingForm.vue'
import LetterTextForm from './LetterTextForm.vue'

/** How letters leave, and what they say. */
const t = text.post
const { value: post, load } = useRead(['post'], desk.post, { on: (event) => event.type === 'letter' })
const { value: texts, load: loadTexts } = useRead(['letter-texts'], desk.letterTexts)

async function test() {
  try {
    await desk.testPost()
    say(t.tested)
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <section aria-labelledby="post">
    <h2 id="post">{{ t.setup }}</h2>
    <p class="quiet">{{ t.setupHelp }}</p>
    <template v-if="post">
      <p v-if="post.trouble" class="failure">{{ t.trouble(post.trouble) }}</p>
      <p>{{ post.server ? t.server(post.server, post.from) : t.standIn }}</p>
      <p>{{ post.reachable ? t.linksBegin(post.links) : t.local(post.links) }}</p>
      <ElButton @click="test">{{ t.test }}</ElButton>
    </template>
    <h3>{{ t.common }}</h3>
    <LetterSettingForm />
    <h3>{{ t.texts }}</h3>
    <p class="quiet">{{ t.textsHelp }}</p>
    <LetterTextForm v-for="one in texts" :key="one.kind" :kept="one" @changed="loadTexts" />
  </section>
</template>

<style scoped>
section {
  max-width: 1000px;
  margin-bottom: 32px;
}
h2 {
  margin-bottom: 4px;
  font-size: 20px;
}
h3 {
  margin-top: 18px;
  font-size: 17px;
}
.el-button {
  margin-top: 8px;
}
</style>
