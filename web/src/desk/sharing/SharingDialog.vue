<script setup lang="ts">
import { computed, reactive, watch } from 'vue'
import { desk } from '../../api/desk'
import { text } from '../../text/desk'
import LoadingPart from '../LoadingPart.vue'
import FailureNote from '../FailureNote.vue'
import ChoiceField from '../fields/ChoiceField.vue'
import { useRead } from '../queries'
import { say } from '../say'
import { useSubmit } from '../use-submit'
import FieldBox from '../features/compose/FieldBox.vue'

/** With whom of the office a round or a parcel is shared, and who owns it. */
const props = defineProps<{ of: 'round' | 'parcel'; id: number }>()
const emit = defineEmits<{ close: []; saved: [] }>()
const t = text.team
const { value: shared, problem: unread, load } = useRead(['sharing', props.of, props.id], () => (props.of === 'round' ? desk.sharing(props.id) : desk.parcelSharing(props.id)), { fresh: true })
const form = reactive({ owner: 0, office: true, with: [] as number[] })
watch(shared, (now) => now && Object.assign(form, { owner: now.owner, office: now.wholeOffice, with: [...now.with] }), { immediate: true })
const owners = computed(() => shared.value?.colleagues.filter((one) => one.role !== 'READER').map((one) => ({ value: one.id, label: one.name })) ?? [])
const others = computed(() => shared.value?.colleagues.filter((one) => one.id !== form.owner && one.role !== 'ADMINISTRATOR') ?? [])

const { problem, busy, submit } = useSubmit(async () => {
  const share = props.of === 'round' ? desk.share : desk.shareParcel
  await share(props.id, form.owner, form.office, form.office ? [] : form.with.filter((id) => id !== form.owner))
  say(t.sharingSaved)
  emit('saved')
  emit('close')
})
</script>

<template>
  <ElDialog :model-value="true" :title="of === 'round' ? t.sharingTitle : t.sharingParcelTitle" width="560" append-to-body @close="emit('close')">
    <FailureNote v-if="unread" :problem="unread" @retry="load" />
    <LoadingPart v-else-if="!shared" />
    <form v-else id="sharing-form" novalidate @submit.prevent="submit">
      <p v-if="!shared.mayChange" class="quiet">{{ t.sharingOnly(shared.ownerName) }}</p>
      <fieldset :disabled="!shared.mayChange">
        <FieldBox id="sharing-owner" v-slot="{ attrs }" :label="t.sharingOwner" :hint="t.sharingOwnerHint" :error="problem?.at('owner')"><ChoiceField v-bind="attrs" v-model="form.owner" filterable :choices="owners" /></FieldBox>
        <ElRadioGroup v-model="form.office" class="ways" :disabled="!shared.mayChange">
          <ElRadio :value="true">{{ t.sharingOffice }}</ElRadio>
          <ElRadio :value="false">{{ t.sharingSome }}</ElRadio>
        </ElRadioGroup>
        <div v-if="!form.office" class="some">
          <ElCheckboxGroup v-model="form.with" :disabled="!shared.mayChange">
            <ElCheckbox v-for="one in others" :key="one.id" :value="one.id">{{ one.name }} <span class="quiet">{{ t.roles[one.role].toLowerCase() }}</span></ElCheckbox>
          </ElCheckboxGroup>
          <p v-if="others.length === 0" class="quiet">{{ t.sharingNobody }}</p>
        </div>
      </fieldset>
      <p v-if="problem && !problem.at('owner')" class="error" role="alert">{{ problem.at('with') || problem.at('wholeOffice') || `${problem.title}. ${problem.detail}` }}</p>
    </form>
    <template #footer>
      <ElButton @click="emit('close')">{{ text.round.cancel }}</ElButton>
      <ElButton v-if="shared?.mayChange" type="primary" native-type="submit" form="sharing-form" :loading="busy">{{ t.sharingSave }}</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}
.ways {
  display: grid;
  justify-items: start;
}
.some {
  padding-left: 24px;
}
.some :deep(.el-checkbox-group) {
  display: grid;
  max-height: 220px;
  overflow-y: auto;
}
</style>
