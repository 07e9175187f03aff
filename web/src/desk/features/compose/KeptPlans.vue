<script setup lang="ts">
import { ref } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type RoundSheet, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import NamedMenu from '../../fields/NamedMenu.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from './FieldBox.vue'

/** Plans kept by name: one is put into the sheet, or this one is kept for others. A round has its own copy. */
const props = defineProps<{ letters: RoundSheet['letters'] }>()
const t = text.post.kept
const { value: kept, load } = useRead(['kept-plans'], desk.keptPlans)
const keeping = ref(false)
const name = ref('')

function use(plan: Schemas['KeptPlan']) {
  const before = JSON.parse(JSON.stringify(props.letters)) as RoundSheet['letters']
  Object.assign(props.letters, JSON.parse(JSON.stringify(plan.plan)), { invite: before.invite })
  say(t.used(plan.name), { label: text.panel.undo, run: () => Object.assign(props.letters, before) })
}

const { problem, busy, submit } = useSubmit(async () => {
  const saved = await desk.keepPlan(name.value, { ...props.letters, invite: false })
  keeping.value = false
  name.value = ''
  say(t.saved(saved.name))
  await load()
})

async function discard(plan: Schemas['KeptPlan']) {
  try {
    await desk.discardPlan(plan.id)
    say(t.discarded(plan.name), { label: text.panel.undo, run: () => void desk.keepPlan(plan.name, plan.plan).then(load, sayProblem) })
  } catch (error) {
    sayProblem(error)
  }
  await load()
}
</script>

<template>
  <div class="kept">
    <NamedMenu v-if="kept?.length" :label="t.use" :names="kept.map((one) => one.name)" small @pick="(n) => use(kept![n]!)" />
    <ElButton size="small" :aria-expanded="keeping" @click="keeping = !keeping">{{ t.keep }}</ElButton>
  </div>
  <div v-if="keeping" class="keeping">
    <FieldBox id="plan-name" v-slot="{ attrs }" :label="t.name" :error="problem?.at('name') || problem?.detail">
      <ElInput v-bind="attrs" v-model="name" :maxlength="limits.TypedKeptPlan.name.longest" @keydown.enter.prevent="submit" />
    </FieldBox>
    <ElButton size="small" type="primary" :loading="busy" @click="submit">{{ t.save }}</ElButton>
    <ul v-if="kept?.length">
      <li v-for="plan in kept" :key="plan.id">{{ plan.name }} <ElButton type="primary" link size="small" :aria-label="t.discard(plan.name)" @click="discard(plan)">✕</ElButton></li>
    </ul>
  </div>
</template>

<style scoped>
.kept {
  display: flex;
  gap: 8px;
  margin: 10px 0;
}
.keeping {
  max-width: 420px;
  margin-bottom: 14px;
  padding-left: 12px;
  border-left: 4px solid var(--line);
}
ul {
  margin: 10px 0 0;
  padding: 0;
  list-style: none;
}
</style>
