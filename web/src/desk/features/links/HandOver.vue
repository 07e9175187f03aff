<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type ListedLink } from '../../../api/desk'
import { limits } from '../../../api/limits'
import { text } from '../../../text/desk'
import { copy } from '../../copy'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import EmbedForm from './EmbedForm.vue'
import { saveBlob } from './save-blob'

/** Every way of getting a link to a person. */
const props = defineProps<{ link: ListedLink; url: string }>()
const t = text.links
const open = ref<'qr' | 'print' | 'embed'>()
const passcode = ref('')
const canShare = 'share' in navigator
const letter = computed(() => {
  const hello = props.link.person ? t.mailHello(props.link.person) : t.mailAnybody
  return { subject: t.mailSubject(props.link.round), body: `${hello}\n\n${t.mailBody(props.link.round)}\n\n${props.url}\n` }
})
const mailto = computed(() => `mailto:${encodeURIComponent(props.link.email ?? '').replace('%40', '@')}?subject=${encodeURIComponent(letter.value.subject)}&body=${encodeURIComponent(letter.value.body.replaceAll('\n', '\r\n'))}`)

function toggle(which: 'qr' | 'print' | 'embed') {
  open.value = open.value === which ? undefined : which
}

/** From now on the person counts as asked. */
async function handedOver() {
  if (props.link.basketId !== null) await desk.handedOver(props.link.basketId).catch(sayProblem)
}

async function copyLink() {
  if (await copy(props.url)) say(t.copied)
  await handedOver()
}

async function share() {
  try {
    await navigator.share({ title: letter.value.subject, text: letter.value.body })
    await handedOver()
  } catch {
    // Whoever closed the sheet of the device did not want to share.
  }
}

const { problem, busy, submit: print } = useSubmit(async () => {
  saveBlob(await desk.handouts([props.link.id], passcode.value), `${props.link.person ?? props.link.round}.pdf`)
  open.value = undefined
})
</script>

<template>
  <div class="over">
    <p class="mono address">{{ url }}</p>
    <div class="actions">
      <ElButton type="primary" size="small" @click="copyLink">{{ t.copy }}</ElButton>
      <a class="button small" :href="mailto" @click="handedOver">{{ t.mail }}</a>
      <ElButton v-if="canShare" size="small" @click="share">{{ t.share }}</ElButton>
      <ElButton size="small" :aria-expanded="open === 'qr'" @click="toggle('qr')">{{ t.qr }}</ElButton>
      <ElButton size="small" :aria-expanded="open === 'print'" @click="link.passcode ? toggle('print') : print()">{{ busy ? t.printing : t.print }}</ElButton>
      <ElButton v-if="link.basketId === null" size="small" :aria-expanded="open === 'embed'" @click="toggle('embed')">{{ t.embed }}</ElButton>
    </div>
    <p v-if="problem && open !== 'print'" class="error" role="alert">{{ problem.detail }}</p>
    <div v-if="open === 'qr'" class="qr">
      <img :src="`/api/handouts/${link.id}/qr.svg?${link.version}`" :alt="t.qrOf" width="180" height="180" />
      <div>
        <a :href="`/api/handouts/${link.id}/qr.svg`" download>{{ t.svg }}</a>
        <a :href="`/api/handouts/${link.id}/qr.png`" download>{{ t.png }}</a>
      </div>
    </div>
    <form v-if="open === 'print'" class="form" @submit.prevent="print" @keydown.esc.stop="open = undefined">
      <label for="print-passcode">{{ t.printPasscode }}</label>
      <ElInput id="print-passcode" v-model="passcode" autocomplete="off" :maxlength="limits.RoundSheet.passcode.longest" :aria-invalid="!!problem" aria-describedby="print-passcode-error" />
      <p id="print-passcode-error" class="error" role="alert">{{ problem?.at('passcode') || problem?.detail }}</p>
      <span><ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ busy ? t.printing : t.doPrint }}</ElButton></span>
    </form>
    <EmbedForm v-if="open === 'embed'" :round-id="link.roundId" :url="url" :title="link.round" />
  </div>
</template>

<style scoped>
.over {
  display: grid;
  gap: 10px;
  margin-top: 12px;
}
.address {
  padding: 6px 10px;
  background: var(--tint);
  font-size: 14px;
  overflow-wrap: anywhere;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.qr {
  display: flex;
  gap: 16px;
  align-items: center;
}
.qr div,
.form {
  display: grid;
  gap: 8px;
}
</style>
