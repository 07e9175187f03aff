<script setup lang="ts">
import { computed } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type RoundSheet } from '../../../api/desk'
import { text } from '../../../text/desk'
import { useRead } from '../../queries'
import FieldBox from './FieldBox.vue'
import FoldedSentence from './FoldedSentence.vue'

/** Of a round that gathers already nothing is asked about invitations, and the passcode that stands cannot be read, only replaced or taken away. */
const props = defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string; changing?: boolean; passcodeSet?: boolean }>()
const dropPasscode = defineModel<boolean>('dropPasscode')
const t = text.compose
const sentence = computed(() => {
  const { letters, openLink, passcode } = props.sheet
  return [letters.invite ? t.how.letter : t.how.byHand, openLink ? (passcode ? t.how.openPasscode : t.how.open) : t.how.closed].join(' ')
})
const { value: post } = useRead(['post'], desk.post)
</script>

<template>
  <FoldedSentence :sentence="sentence" :change="t.changeHow" :faulty="changing || !!errorAt('passcode')">
    <p>{{ t.personal }}</p>
    <fieldset v-if="!changing" class="invite">
      <legend>{{ text.post.inviteTitle }}</legend>
      <ElRadioGroup v-model="sheet.letters.invite" :aria-label="text.post.inviteTitle">
        <ElRadio :value="true">{{ text.post.invite }}</ElRadio>
        <ElRadio :value="false">{{ text.post.inviteNot }}</ElRadio>
      </ElRadioGroup>
    </fieldset>
    <ElCheckbox v-model="sheet.openLink">{{ t.openLink }}</ElCheckbox>
    <FieldBox v-if="sheet.openLink" id="passcode" v-slot="{ attrs }" :label="passcodeSet ? t.newPasscode : t.passcode" :error="errorAt('passcode')">
      <ElInput v-bind="attrs" v-model="sheet.passcode" :disabled="dropPasscode" :maxlength="limits.RoundSheet.passcode.longest" autocomplete="off" />
    </FieldBox>
    <ElCheckbox v-if="sheet.openLink && passcodeSet" v-model="dropPasscode">{{ t.dropPasscode }}</ElCheckbox>
  </FoldedSentence>
  <p v-if="!changing && post && (sheet.letters.invite || sheet.letters.steps.length > 0) && !post.server" class="warn" role="status">{{ text.post.standIn }}</p>
  <p v-else-if="!changing && post && (sheet.letters.invite || sheet.letters.steps.length > 0) && !post.reachable" class="warn" role="status">{{ text.post.local(post.links) }}</p>
</template>

<style scoped>
.invite {
  margin: 8px 0;
  padding: 0;
  border: 0;
}
legend {
  padding: 0;
  font-weight: 600;
}
.el-radio-group {
  display: grid;
  justify-items: start;
}
.warn {
  padding-left: 10px;
  border-left: 4px solid var(--acorn);
}
</style>
