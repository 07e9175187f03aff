<script setup lang="ts">
import { reactive, ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { copy } from '../../copy'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** The second factor: a code besides the password. */
const t = text.team
const { value: state, load } = useRead(['second-factor'], desk.factor)
const offer = ref<Schemas['FactorOffer']>()
const spare = ref<string[]>()
const form = reactive({ code: '', password: '' })
const picture = (svg: string) => `data:image/svg+xml;base64,${btoa(svg)}`

async function begin() {
  try {
    offer.value = await desk.offerFactor()
  } catch (error) {
    sayProblem(error)
  }
}

const { problem, busy, submit } = useSubmit(async () => {
  if (offer.value) spare.value = (await desk.beginFactor({ offer: offer.value.offer, ...form })).codes
  else await desk.endFactor(form.password)
  offer.value = undefined
  Object.assign(form, { code: '', password: '' })
  await load()
})
</script>

<template>
  <section class="setup-part" aria-labelledby="second-factor">
    <h2 id="second-factor">{{ t.factorTitle }}</h2>
    <p class="quiet">{{ t.factorIntro }}</p>
    <div v-if="spare" class="spare" role="status">
      <h3>{{ t.spareTitle }}</h3>
      <p>{{ t.spareNote }}</p>
      <ul class="mono"><li v-for="code in spare" :key="code">{{ code }}</li></ul>
      <ElButton @click="copy(spare.join('\n')).then(() => say(text.round.copied))">{{ t.spareCopy }}</ElButton> <ElButton type="primary" @click="spare = undefined">{{ t.spareKept }}</ElButton>
    </div>
    <template v-else-if="state">
      <p v-if="state.on">{{ t.factorIsOn(state.spareCodes) }}</p>
      <ElButton v-if="!state.on && !offer" @click="begin">{{ t.factorBegin }}</ElButton>
      <form v-else novalidate @submit.prevent="submit">
        <template v-if="offer">
          <p>{{ t.factorScan }}</p>
          <p class="scan"><img :src="picture(offer.picture)" alt="" width="180" height="180" /> <span class="mono">{{ offer.secret }}</span></p>
          <FieldBox id="factor-code" v-slot="{ attrs }" :label="t.factorCode" :error="problem?.at('code')"><ElInput v-bind="attrs" v-model="form.code" inputmode="numeric" autocomplete="one-time-code" /></FieldBox>
        </template>
        <FieldBox id="factor-password" v-slot="{ attrs }" :label="t.factorPassword" :error="problem?.at('password') || (problem && problem.errors.length === 0 ? problem.detail : '')"><ElInput v-bind="attrs" v-model="form.password" type="password" autocomplete="current-password" /></FieldBox>
        <ElButton native-type="submit" :loading="busy">{{ offer ? t.factorConfirm : t.factorEnd }}</ElButton>
      </form>
    </template>
  </section>
</template>

<style scoped>
form {
  max-width: 420px;
}
.scan {
  display: flex;
  gap: 16px;
  align-items: center;
}
.spare {
  max-width: 560px;
  padding: 8px 16px 14px;
  border-left: 5px solid var(--oak);
  background: var(--card);
}
ul {
  columns: 2;
  padding: 0;
  list-style: none;
}
</style>
