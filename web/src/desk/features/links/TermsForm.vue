<script setup lang="ts">
import { reactive } from 'vue'
import { desk, type ListedLink, type Schemas } from '../../../api/desk'
import { limits } from '../../../api/limits'
import { text } from '../../../text/desk'
import { zoneWords } from '../../../shared/time'
import DateField from '../../fields/DateField.vue'
import TimeField from '../../fields/TimeField.vue'
import FieldBox from '../compose/FieldBox.vue'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import { localParts } from './link-words'
import { OFFERED_DAYS } from './renewals'

/** The terms of one link, in the round's zone. */
const props = defineProps<{ link: ListedLink; suggestion: string; reload: () => Promise<unknown> }>()
const emit = defineEmits<{ saved: [result: Schemas['LinksChanged']]; cancel: [] }>()
type EndKind = NonNullable<Schemas['TermsForm']['ends']>
const t = text.links
const MEBIBYTE = 1024 * 1024
const END_KINDS = Object.entries(t.endKinds) as [EndKind, string][]
const kept = () => {
  const { link } = props
  const begins = localParts(link.beginsAt, link.zone)
  const ends = localParts(link.ownEnd ? link.end : null, link.zone)
  return {
    beginsOn: begins.date,
    beginsAt: begins.time === '00:00' ? '' : begins.time,
    ends: (link.ownEnd ? 'UNTIL' : 'GATHERING') as EndKind,
    days: 14 as number | undefined,
    endsOn: ends.date,
    endsAt: ends.time === '23:59' ? '' : ends.time,
    uses: link.useLimit ?? undefined,
    files: link.fileLimit ?? undefined,
    fileMebibytes: link.fileBytes === null ? undefined : link.fileBytes / MEBIBYTE,
    totalMebibytes: link.totalBytes === null ? undefined : link.totalBytes / MEBIBYTE,
    name: link.name,
  }
}
const form = reactive(kept())
const most = limits.TermsForm
let result: Schemas['LinksChanged']

const { conflicts, asked, problem, busy, submit, decide } = useBoth(form, {
  kept,
  version: () => props.link.version,
  reload: props.reload,
  send: async () => {
    result = await desk.setLinkTerms(props.link.id, {
      version: props.link.version, beginsOn: form.beginsOn, beginsAt: form.beginsAt, ends: form.ends, days: form.days ?? null, endsOn: form.endsOn, endsAt: form.endsAt,
      uses: form.uses ?? null, files: form.files ?? null, fileMebibytes: form.fileMebibytes ?? null, totalMebibytes: form.totalMebibytes ?? null, name: form.name,
    })
  },
  done: () => emit('saved', result),
})
const names = {
  beginsOn: t.begins, beginsAt: t.beginsTime, ends: t.ends, days: t.days, endsOn: t.endsOn, endsAt: t.endsTime, uses: t.usesField, files: t.filesField, fileMebibytes: t.fileSizeField, totalMebibytes: t.totalSizeField, name: t.name,
}
const say = (field: string, value: unknown) => (field === 'ends' ? t.endKinds[value as EndKind] : undefined)
const at = (field: string) => problem.value?.at(field) ?? ''
</script>

<template>
  <BothVersions v-if="asked" :conflicts="conflicts" :names="names" :say="say" @decide="decide" />
  <form class="terms" novalidate @submit.prevent="submit" @keydown.esc.stop="emit('cancel')">
    <div class="pair">
      <FieldBox id="link-begins" :label="t.begins" :error="at('begins')"><template #default="{ attrs }"><DateField v-bind="attrs" v-model="form.beginsOn" /></template></FieldBox>
      <FieldBox id="link-begins-time" :label="t.beginsTime"><template #default="{ attrs }"><TimeField v-bind="attrs" v-model="form.beginsAt" /></template></FieldBox>
    </div>
    <fieldset>
      <legend>{{ t.ends }}</legend>
      <ElRadioGroup v-model="form.ends" :aria-label="t.ends">
        <ElRadio v-for="[kind, label] in END_KINDS" :key="kind" :value="kind">{{ label }}</ElRadio>
      </ElRadioGroup>
      <div v-if="form.ends === 'DAYS'" class="days">
        <FieldBox id="link-days" :label="t.days" :error="at('days')"><template #default="{ attrs }"><ElInputNumber v-bind="attrs" v-model="form.days" :min="most.days.least" :max="most.days.most" :controls="false" /></template></FieldBox>
        <ElButton v-for="days in OFFERED_DAYS" :key="days" size="small" :aria-pressed="form.days === days" @click="form.days = days">{{ t.day(days) }}</ElButton>
      </div>
      <div v-if="form.ends === 'UNTIL'" class="pair">
        <FieldBox id="link-ends" :label="t.endsOn" :error="at('ends')"><template #default="{ attrs }"><DateField v-bind="attrs" v-model="form.endsOn" /></template></FieldBox>
        <FieldBox id="link-ends-time" :label="t.endsTime"><template #default="{ attrs }"><TimeField v-bind="attrs" v-model="form.endsAt" /></template></FieldBox>
      </div>
      <p v-else-if="at('ends')" class="error" role="alert">{{ at('ends') }}</p>
    </fieldset>
    <p class="quiet">{{ t.zone(zoneWords(link.zone)) }}</p>
    <div class="pair">
      <FieldBox id="link-uses" :label="t.usesField" :error="at('uses')"><template #default="{ attrs }"><ElInputNumber v-bind="attrs" v-model="form.uses" :min="most.uses.least" :max="most.uses.most" :controls="false" :placeholder="t.noLimit" /></template></FieldBox>
      <FieldBox id="link-files" :label="t.filesField" :error="at('files')"><template #default="{ attrs }"><ElInputNumber v-bind="attrs" v-model="form.files" :min="most.files.least" :max="most.files.most" :controls="false" :placeholder="t.noLimit" /></template></FieldBox>
      <FieldBox id="link-file-size" :label="t.fileSizeField" :error="at('fileMebibytes')"><template #default="{ attrs }"><ElInputNumber v-bind="attrs" v-model="form.fileMebibytes" :min="most.fileMebibytes.least" :max="most.fileMebibytes.most" :controls="false" :placeholder="t.noLimit" /></template></FieldBox>
      <FieldBox id="link-total-size" :label="t.totalSizeField" :error="at('totalMebibytes')"><template #default="{ attrs }"><ElInputNumber v-bind="attrs" v-model="form.totalMebibytes" :min="most.totalMebibytes.least" :max="most.totalMebibytes.most" :controls="false" :placeholder="t.noLimit" /></template></FieldBox>
    </div>
    <FieldBox id="link-name" :label="t.name" :hint="t.nameHint" :error="at('name')"><template #default="{ attrs }"><ElInput v-bind="attrs" v-model="form.name" :maxlength="most.name.longest" /></template></FieldBox>
    <span v-if="suggestion && form.name !== suggestion"><ElButton type="primary" link size="small" @click="form.name = suggestion">{{ t.suggest(suggestion) }}</ElButton></span>
    <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.detail }}</p>
    <div class="actions">
      <ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ t.save }}</ElButton>
      <ElButton size="small" @click="emit('cancel')">{{ text.round.cancel }}</ElButton>
    </div>
  </form>
</template>

<style scoped>
.terms {
  display: grid;
  gap: 10px;
  margin-top: 8px;
}
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
}
.days {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: start;
}
.terms .el-input-number {
  width: 100%;
}
.days .el-input-number {
  width: 90px;
}
.days > .el-button {
  margin-top: 36px;
}
.actions {
  display: flex;
  gap: 8px;
}
</style>
