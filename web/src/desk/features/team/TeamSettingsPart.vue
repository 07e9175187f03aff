<script setup lang="ts">
import { reactive } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'
import { say } from '../../say'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import FieldBox from '../compose/FieldBox.vue'

/** What the office has settled about its coordinators. */
const t = text.team
const { value: settled, load } = useRead(['team-settings'], desk.teamSettings)
const form = reactive({ openLinks: true, handOut: true, most: undefined as number | undefined })
const { conflicts, asked, problem, busy, submit, decide } = useBoth(form, {
  kept: () => {
    const terms = settled.value?.terms
    return terms && { openLinks: terms.coordinatorsMakeOpenLinks, handOut: terms.coordinatorsHandOut, most: terms.mostLiveLinks ?? undefined }
  },
  version: () => settled.value?.version,
  reload: load,
  send: () => desk.settleTeam({ openLinks: form.openLinks, handOut: form.handOut, mostLiveLinks: form.most ?? null, version: settled.value?.version ?? 0 }),
  done: () => {
    say(t.saved)
    return load()
  },
})
</script>

<template>
  <section aria-labelledby="team-settings">
    <h2 id="team-settings">{{ t.settingsTitle }}</h2>
    <BothVersions v-if="asked" :conflicts="conflicts" :names="{ openLinks: t.openLinks, handOut: t.handOut, most: t.mostLinks }" @decide="decide" />
    <form novalidate @submit.prevent="submit">
      <ElCheckbox v-model="form.openLinks" :label="t.openLinks" />
      <ElCheckbox v-model="form.handOut" :label="t.handOut" />
      <FieldBox id="most-links" v-slot="{ attrs }" :label="t.mostLinks" :hint="t.mostLinksHint" :error="problem?.at('mostLiveLinks')"><ElInputNumber v-bind="attrs" v-model="form.most" :controls="false" :precision="0" /></FieldBox>
      <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
      <ElButton native-type="submit" :loading="busy">{{ t.save }}</ElButton>
    </form>
  </section>
</template>

<style scoped>
section {
  margin-top: 28px;
}
h2 {
  margin-bottom: 6px;
  font-size: 20px;
}
form {
  display: grid;
  gap: 6px;
  justify-items: start;
}
</style>
