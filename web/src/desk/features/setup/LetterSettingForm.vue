<script setup lang="ts">
import { reactive } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'
import { say } from '../../say'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import TimeField from '../../fields/TimeField.vue'
import FieldBox from '../compose/FieldBox.vue'

/** What all letters of the office have in common. */
const t = text.post
const { value: kept, load } = useRead(['letter-settings'], desk.letterSettings)
const form = reactive({ signature: '', replyTo: '', calendar: false, perMinute: 0, gapHours: 0, quietFrom: '', quietTo: '' })

const { conflicts, asked, problem, busy, submit, decide } = useBoth(form, {
  kept: () => {
    if (!kept.value) return undefined
    const { signature, replyTo, calendar, perMinute, gapHours, quietFrom, quietTo } = kept.value
    return { signature, replyTo, calendar, perMinute, gapHours, quietFrom, quietTo }
  },
  version: () => kept.value?.version,
  reload: load,
  send: () => desk.changeLetterSettings({ ...form, perMinute: Number(form.perMinute), gapHours: Number(form.gapHours), version: kept.value!.version }),
  done: () => {
    say(t.commonKept)
    return load()
  },
})
const names = { signature: t.signature, replyTo: t.replyTo, calendar: t.calendar, perMinute: t.perMinute, gapHours: t.gap, quietFrom: t.quietFrom, quietTo: t.quietTo }
</script>

<template>
  <BothVersions v-if="asked" :conflicts="conflicts" :names="names" @decide="decide" />
  <form v-if="kept" novalidate @submit.prevent="submit">
    <FieldBox id="letter-signature" v-slot="{ attrs }" :label="t.signature" :hint="t.signatureHint" :error="problem?.at('signature')"><ElInput v-bind="attrs" v-model="form.signature" type="textarea" :rows="3" /></FieldBox>
    <FieldBox id="letter-reply" v-slot="{ attrs }" :label="t.replyTo" :hint="t.replyToHint" :error="problem?.at('replyTo')"><ElInput v-bind="attrs" v-model="form.replyTo" type="email" /></FieldBox>
    <div class="pairs">
      <FieldBox id="letter-quiet-from" v-slot="{ attrs }" :label="t.quietFrom" :hint="t.quietHint" :error="problem?.at('quietFrom')"><TimeField v-bind="attrs" v-model="form.quietFrom" /></FieldBox>
      <FieldBox id="letter-quiet-to" v-slot="{ attrs }" :label="t.quietTo" :error="problem?.at('quietTo')"><TimeField v-bind="attrs" v-model="form.quietTo" /></FieldBox>
      <FieldBox id="letter-gap" v-slot="{ attrs }" :label="t.gap" :hint="t.gapHint" :error="problem?.at('gapHours')"><ElInput v-bind="attrs" v-model="form.gapHours" type="number" min="0" /></FieldBox>
      <FieldBox id="letter-pace" v-slot="{ attrs }" :label="t.perMinute" :hint="t.perMinuteHint" :error="problem?.at('perMinute')"><ElInput v-bind="attrs" v-model="form.perMinute" type="number" min="0" /></FieldBox>
    </div>
    <ElCheckbox v-model="form.calendar">{{ t.calendar }}</ElCheckbox>
    <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
    <ElButton native-type="submit" :loading="busy">{{ t.keepCommon }}</ElButton>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 4px;
  max-width: 640px;
  justify-items: start;
}
form > :deep(.field),
.pairs {
  width: 100%;
}
.pairs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 18px;
  align-items: start;
}
</style>
