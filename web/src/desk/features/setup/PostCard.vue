<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import { choices } from '../../fields/choices'
import PeopleField from '../../PeopleField.vue'
import { say, sayProblem } from '../../say'
import { useRead } from '../../queries'
import FieldBox from '../compose/FieldBox.vue'
import LetterSettingForm from './LetterSettingForm.vue'
import LetterTextForm from './LetterTextForm.vue'

/** How letters leave, and what they say. */
const t = text.post
const { value: post, load } = useRead(['post'], desk.post, { on: (event) => event.type === 'letter' })
const language = ref('en')
const { value: texts, load: loadTexts } = useRead(computed(() => ['letter-texts', language.value]), () => desk.letterTexts(language.value))
const checked = ref<Schemas['ServersChecked']>()
const checking = ref(false)
const person = ref<{ id: number; name: string }>()

async function check() {
  checking.value = true
  try {
    checked.value = await desk.checkMailServers()
  } catch (error) {
    sayProblem(error)
  }
  checking.value = false
}

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
      <p>{{ post.collecting ? t.collecting(post.collecting) : t.noCollecting }}</p>
      <div class="acts">
        <ElButton @click="test">{{ t.test }}</ElButton>
        <ElButton :loading="checking" @click="check">{{ t.check }}</ElButton>
        <RouterLink v-if="post.pretend" class="button" to="/post-office">{{ t.parts.office }}</RouterLink>
      </div>
      <ul v-if="checked" class="checked" role="status">
        <li :class="{ failure: checked.letters }">{{ t.checkLetters(checked.letters || t.checkFine) }}</li>
        <li :class="{ failure: checked.mailbox }">{{ t.checkMailbox(checked.mailbox === null ? t.checkNone : checked.mailbox || t.checkFine) }}</li>
      </ul>
    </template>
    <h3>{{ t.common }}</h3>
    <LetterSettingForm />
    <h3>{{ t.texts }}</h3>
    <p class="quiet">{{ t.textsHelp }}</p>
    <div class="which">
      <FieldBox id="texts-language" v-slot="{ attrs }" :label="t.language" :hint="t.languageHint"><ChoiceField v-bind="attrs" v-model="language" :choices="choices<string>(t.languages)" /></FieldBox>
      <div class="field">
        <label for="texts-person">{{ t.fillFor }}</label>
        <PeopleField id="texts-person" :label="t.fillFor" :placeholder="t.fillForHint" @contact="(contact) => (person = { id: contact.id, name: contact.name })" />
        <p class="quiet">{{ person?.name ?? t.madeUp }} <ElButton v-if="person" type="primary" link size="small" @click="person = undefined">{{ t.madeUp }}</ElButton></p>
      </div>
    </div>
    <LetterTextForm v-for="one in texts" :key="one.kind + language" :kept="one" :language="language" :person="person" :reload="loadTexts" @changed="loadTexts" />
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
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
.acts .el-button {
  margin: 0;
}
.checked {
  margin: 10px 0 0;
  padding: 0;
  list-style: none;
}
.which {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  max-width: 640px;
  margin-top: 10px;
}
</style>
