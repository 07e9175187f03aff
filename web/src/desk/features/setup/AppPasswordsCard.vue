<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import AskOnce from '../../AskOnce.vue'
import { copy } from '../../copy'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** The folders as a share for one's own computer: its address, and the passwords of the programs that use it. */
const t = text.share
const { value: passwords, load } = useRead(['app-passwords'], desk.appPasswords)
const name = ref('')
const made = ref('')
const address = computed(() => `${location.origin}/dav/`)
const { problem, busy, submit } = useSubmit(async () => {
  made.value = (await desk.makeAppPassword(name.value)).password
  name.value = ''
  await load()
})

async function revoke(one: Schemas['AppPassword']) {
  try {
    await desk.revokeAppPassword(one.id)
    say(t.revoked(one.name))
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <section class="setup-part" aria-labelledby="share">
    <h2 id="share">{{ t.title }}</h2>
    <p class="quiet">{{ t.intro }}</p>
    <p><span class="mono">{{ address }}</span> <ElButton size="small" @click="copy(address).then(() => say(text.round.copied))">{{ t.copyAddress }}</ElButton></p>
    <ul>
      <li v-for="one in passwords" :key="one.id">
        <strong>{{ one.name }}</strong> <span class="quiet">{{ one.lastUsed ? t.used(dayAndTime(one.lastUsed)) : t.neverUsed }}</span>
        <AskOnce small :label="t.revoke" :name="`${t.revoke}: ${one.name}`" :question="t.revokeAsk(one.name)" @sure="revoke(one)" />
      </li>
    </ul>
    <p v-if="made" class="made" role="status">{{ t.made }} <strong class="mono">{{ made }}</strong> <ElButton size="small" @click="copy(made).then(() => say(text.round.copied))">{{ t.copyPassword }}</ElButton></p>
    <form novalidate @submit.prevent="submit">
      <FieldBox id="app-password-name" v-slot="{ attrs }" :label="t.name" :error="problem?.at('name') || (problem && problem.errors.length === 0 ? problem.detail : '')"><ElInput v-bind="attrs" v-model="name" /></FieldBox>
      <ElButton native-type="submit" :loading="busy">{{ t.make }}</ElButton>
    </form>
  </section>
</template>

<style scoped>
.made {
  padding: 8px 12px;
  border-left: 5px solid var(--oak);
  background: var(--card);
}
form {
  display: grid;
  grid-template-columns: minmax(0, 420px) auto;
  gap: 14px;
  align-items: start;
}
form > .el-button {
  justify-self: start;
  margin-top: 28px;
}
</style>
