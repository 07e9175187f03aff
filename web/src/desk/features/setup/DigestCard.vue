<script setup lang="ts">
import { computed, reactive, watch } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import { choices } from '../../fields/choices'
import { useRead } from '../../queries'
import { say } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** How the one who is signed in is told by mail of what has come. */
const t = text.post.digest
type Plan = Schemas['DigestView']['plan']
const { value: kept, load } = useRead(['digest'], desk.digest)
const { value: rounds } = useRead(['rounds'], desk.rounds)
const form = reactive<{ plan: Plan; muted: number[] }>({ plan: 'NEVER', muted: [] })
const opened = computed(() => (rounds.value ?? []).filter((round) => round.state === 'GATHERING' || form.muted.includes(round.id)))

watch(kept, (now) => now && Object.assign(form, { plan: now.plan, muted: [...now.muted] }), { immediate: true })

const { problem, busy, submit } = useSubmit(async () => {
  await desk.changeDigest({ ...form })
  say(t.kept)
  await load()
})
</script>

<template>
  <section class="setup-part" aria-labelledby="digest">
    <h2 id="digest">{{ t.title }}</h2>
    <p class="quiet">{{ t.intro }}</p>
    <form v-if="kept" novalidate @submit.prevent="submit">
      <p v-if="kept.problem" class="failure">{{ t.problem(kept.problem) }}</p>
      <FieldBox id="digest-plan" v-slot="{ attrs }" :label="t.plan"><ChoiceField v-bind="attrs" v-model="form.plan" :choices="choices<Plan>(t.plans)" /></FieldBox>
      <FieldBox v-if="form.plan !== 'NEVER'" id="digest-muted" v-slot="{ attrs }" :label="t.muted" :error="problem?.at('muted')">
        <ElSelect :id="attrs.id" v-model="form.muted" multiple filterable :placeholder="t.nothingMuted"><ElOption v-for="round in opened" :key="round.id" :value="round.id" :label="round.title" /></ElSelect>
      </FieldBox>
      <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
      <ElButton native-type="submit" :loading="busy">{{ t.keep }}</ElButton>
    </form>
  </section>
</template>

<style scoped>
form {
  max-width: 640px;
}
</style>
