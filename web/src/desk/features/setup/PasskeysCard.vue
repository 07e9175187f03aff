<script setup lang="ts">
import { reactive, ref } from 'vue'
import { desk } from '../../../api/desk'
import { limits } from '../../../api/limits'
import { dayAndTime } from '../../../shared/time'
import { text } from '../../../text/desk'
import { makePasskey, passkeysHere } from '../../passkeys'
import { useRead } from '../../queries'
import { ask, say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** The passkeys of whoever is signed in. */
const t = text.team
const { value: all, load } = useRead(['passkeys'], desk.passkeys)
const form = reactive({ label: '', password: '' })
const nothing = ref(false)

const { problem, busy, submit } = useSubmit(async () => {
  const offer = await desk.offerPasskey(form.password)
  const answer = await makePasskey(offer.options)
  nothing.value = answer === undefined
  if (answer === undefined) return
  await desk.keepPasskey(offer.offer, form.label, answer)
  Object.assign(form, { label: '', password: '' })
  say(t.passkeyAdded)
  await load()
})

async function remove(id: number) {
  if (!(await ask(t.passkeyRemoveQuestion))) return
  try {
    await desk.removePasskey(id)
    say(t.passkeyRemoved)
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <section class="setup-part" aria-labelledby="passkeys">
    <h2 id="passkeys">{{ t.passkeys }}</h2>
    <p class="quiet">{{ t.passkeysIntro }}</p>
    <ul v-if="all && all.length > 0">
      <li v-for="one in all" :key="one.id">
        <span>{{ one.label }} <span class="quiet">{{ t.passkeyMade(dayAndTime(one.madeAt)) }}, {{ one.usedAt ? t.passkeyUsed(dayAndTime(one.usedAt)) : t.passkeyNotUsed }}</span></span>
        <ElButton size="small" :aria-label="t.passkeyRemoveNamed(one.label)" @click="remove(one.id)">{{ t.passkeyRemove }}</ElButton>
      </li>
    </ul>
    <p v-else-if="all" class="quiet">{{ t.passkeysNone }}</p>
    <p v-if="!passkeysHere()" class="quiet">{{ t.passkeysNot }}</p>
    <form v-else novalidate @submit.prevent="submit">
      <FieldBox id="passkey-label" v-slot="{ attrs }" :label="t.passkeyLabel" :error="problem?.at('label')"><ElInput v-bind="attrs" v-model="form.label" :maxlength="limits.PasskeyMade.label.longest" /></FieldBox>
      <FieldBox id="passkey-password" v-slot="{ attrs }" :label="t.passkeyPassword" :error="problem?.at('password') || (problem && problem.errors.length === 0 ? `${problem.title}. ${problem.detail}` : nothing ? t.passkeyNothing : '')"><ElInput v-bind="attrs" v-model="form.password" type="password" autocomplete="current-password" /></FieldBox>
      <ElButton native-type="submit" :loading="busy">{{ t.passkeyAdd }}</ElButton>
    </form>
  </section>
</template>

<style scoped>
ul {
  margin: 8px 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
form {
  display: grid;
  gap: 4px;
  justify-items: start;
  max-width: 420px;
}
form > :deep(.field) {
  width: 100%;
}
</style>
