<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** Somebody leaves: what happens, and who gets what was theirs. */
const props = defineProps<{ leaving: Schemas['TeamMember']; others: Schemas['TeamMember'][] }>()
const emit = defineEmits<{ close: []; left: [name: string] }>()
const t = text.team
const to = ref<number | null>(null)
const name = computed(() => props.leaving.member.name)
const choices = computed(() => [{ value: null as number | null, label: t.leaveNobody }, ...props.others.filter((one) => one.member.role !== 'READER').map((one) => ({ value: one.member.id as number | null, label: one.member.name }))])

const { problem, busy, submit } = useSubmit(async () => {
  await desk.letLeave(props.leaving.member.id, props.leaving.member.version, to.value)
  emit('left', name.value)
})
</script>

<template>
  <ElDialog :model-value="true" :title="t.leaveTitle(name)" width="520" append-to-body @close="emit('close')">
    <form id="leave-form" novalidate @submit.prevent="submit">
      <p>{{ t.leaveNote(name) }}</p>
      <FieldBox id="leave-to" v-slot="{ attrs }" :label="t.leaveTo" :error="problem?.at('to')"><ChoiceField v-bind="attrs" v-model="to" :choices="choices" filterable /></FieldBox>
      <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
    </form>
    <template #footer>
      <ElButton @click="emit('close')">{{ text.round.cancel }}</ElButton>
      <ElButton type="primary" native-type="submit" form="leave-form" :loading="busy">{{ t.leaveDo }}</ElButton>
    </template>
  </ElDialog>
</template>
