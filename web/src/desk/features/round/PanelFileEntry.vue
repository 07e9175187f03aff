<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { limits } from '../../../api/limits'
import type { PanelFile, Review } from '../../../api/desk'
import { text } from '../../../text/desk'
import FilePreview from '../../../shared/FilePreview.vue'
import IdentityMark from '../../../shared/IdentityMark.vue'
import PlainName from '../../../shared/PlainName.vue'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import SuggestField from '../../fields/SuggestField.vue'
import { may } from '../../use-session'

const props = defineProps<{ file: PanelFile; chosen: boolean; previewed: boolean }>()
const emit = defineEmits<{ toggle: []; preview: []; review: [to: Review, reason: string]; remove: [reason: string] }>()
const t = text.panel
const apart = computed(() => props.file.claim === 'OPEN' || props.file.claim === 'DECLINED')
const asking = ref<'return' | 'remove'>()
const reason = ref('')
const reasonField = useTemplateRef('reasonField')

function reasonsLike(typed: string, show: (reasons: { value: string }[]) => void) {
  const usual = asking.value === 'remove' ? t.removeReasons : text.review.reasons
  show(usual.filter((one) => one.toLowerCase().includes(typed.trim().toLowerCase())).map((value) => ({ value })))
}

async function ask(what: 'return' | 'remove') {
  asking.value = what
  reason.value = ''
  await nextTick()
  reasonField.value?.focus()
}

function sendBack() {
  if (!reason.value.trim()) return reasonField.value?.focus()
  if (asking.value === 'remove') emit('remove', reason.value)
  else emit('review', 'RETURNED', reason.value)
  asking.value = undefined
}
</script>

<template>
  <li>
    <div class="line">
      <ElCheckbox :model-value="chosen" :aria-label="t.select(file.name)" @change="emit('toggle')" />
      <PlainName class="mono" :name="file.name" />
    </div>
    <p class="quiet facts">
      {{ dayAndTime(file.receivedAt) }}, {{ sizeWords(file.bytes) }}, {{ t.receipt }} <span class="mono">{{ file.receipt }}</span>
      <template v-if="file.originalName !== file.name">, {{ t.original }} <PlainName class="mono" :name="file.originalName" /></template>
      <template v-if="file.declaredAs">, {{ t.declared }} {{ file.declaredAs }}</template> <IdentityMark :identity="file.identity" />
    </p>
    <p v-if="file.unchecked" class="same">{{ t.unchecked }}</p>
    <p v-if="file.opened" class="quiet facts">{{ t.openedArchive }}</p>
    <p v-if="file.note" class="word">{{ t.wrote }} <span class="words" dir="auto">{{ file.note }}</span></p>
    <p v-if="file.sameAs" class="same">
      {{ t.same }} <RouterLink :to="{ name: 'round', params: { id: file.sameAs.roundId }, query: { basket: file.sameAs.basketId } }">{{ file.sameAs.person }}</RouterLink>: <span class="mono">{{ file.sameAs.path }}</span>
    </p>
    <p v-if="file.review === 'ACCEPTED'" class="accepted">{{ t.decided.ACCEPTED }}</p>
    <p v-if="file.review === 'RETURNED'" class="error">{{ t.decided.RETURNED }}: {{ file.reviewReason }}</p>
    <div class="actions">
      <ElButton size="small" :aria-expanded="previewed" :aria-label="`${previewed ? t.hide : t.show} ${props.file.name}`" @click="emit('preview')">{{ previewed ? t.hide : t.show }}</ElButton>
      <a class="button small" :href="`/api/files/${file.id}`" download :aria-label="`${t.download} ${file.name}`">{{ t.download }}</a>
      <ElButton v-if="may('CHANGE') && file.review !== 'ACCEPTED' && !apart && !file.opened" size="small" :aria-label="`${t.accept} ${file.name}`" @click="emit('review', 'ACCEPTED', '')">{{ t.accept }}</ElButton>
      <ElButton v-if="may('CHANGE') && file.review !== 'RETURNED' && !apart && !file.opened" size="small" :aria-label="`${t.sendBack} ${file.name}`" @click="ask('return')">{{ t.sendBack }}</ElButton>
      <ElButton v-if="may('CHANGE')" size="small" link :aria-label="`${t.removeFile} ${file.name}`" @click="ask('remove')">{{ t.removeFile }}</ElButton>
    </div>
    <form v-if="asking" class="reason" @submit.prevent="sendBack" @keydown.esc.stop="asking = undefined">
      <label :for="`reason-${file.id}`">{{ asking === 'remove' ? t.removeReason : t.reason }}</label>
      <SuggestField :id="`reason-${file.id}`" ref="reasonField" v-model="reason" :maxlength="limits.Decision.reason.longest" :fetch-suggestions="reasonsLike" />
      <span class="actions">
        <ElButton type="primary" size="small" native-type="submit">{{ asking === 'remove' ? t.confirmRemove : t.confirmReturn }}</ElButton>
        <ElButton size="small" @click="asking = undefined">{{ text.round.cancel }}</ElButton>
      </span>
    </form>
    <FilePreview v-if="previewed" :id="file.id" :name="file.name" :media-type="file.mediaType" />
    <p v-if="previewed" class="quiet facts">{{ t.sha }} <span class="mono">{{ file.sha256 }}</span></p>
  </li>
</template>

<style scoped>
.word {
  padding-left: 10px;
  border-left: 3px solid var(--moss);
  white-space: pre-line;
  overflow-wrap: anywhere;
}
li {
  padding: 8px 0;
}
.line {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.facts {
  padding-left: 26px;
  font-size: 15px;
  overflow-wrap: anywhere;
}
.same {
  padding-left: 26px;
  color: var(--acorn-text);
}
.accepted,
li > .error {
  padding-left: 26px;
}
.accepted {
  color: var(--leaf-deep);
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 6px 0 0 26px;
}
.reason {
  display: grid;
  gap: 6px;
  padding: 8px 0 0 26px;
}
.reason .actions {
  padding-left: 0;
}
</style>
