<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { light } from '../api/light'
import type { ApiProblem } from '../api/problem'
import { text } from '../text/sender'
import OfficeMark from '../light/OfficeMark.vue'
import { ownZone } from '../shared/time'
import ConfirmAddress from './ConfirmAddress.vue'
import { longDayAndTime, sizeWords, zoneWords } from './said'
import { saveFile, type Page } from './use-page'
import type { Receipt } from './use-sending'

const props = defineProps<{ receipt: Receipt; page: Page; rehearsal: boolean; leftOut: string[]; headers: Record<string, string>; address: string }>()
defineEmits<{ another: [] }>()

const checkAddress = `${location.origin}/receipt`
const print = () => window.print()
const mailTo = ref<string | null>(null)
const mailed = ref('')
const mailProblem = ref('')
const mailing = ref(false)

/** Looks whether there is an address that is surely the sender's. */
async function lookForAddress() {
  mailTo.value = (await light('get', '/api/basket/submissions/receipt-mail', { headers: props.headers }).catch(() => ({ address: null }))).address
}

async function mail() {
  mailing.value = true
  mailProblem.value = ''
  try {
    mailed.value = (await light('post', '/api/basket/submissions/receipt-mail', { headers: props.headers })).address ?? ''
  } catch (error) {
    const refusal = error as ApiProblem
    mailProblem.value = refusal.status === 0 ? text.unreachable : refusal.detail
  } finally {
    mailing.value = false
  }
}

onMounted(() => {
  if (!props.rehearsal) void lookForAddress()
})

/** The receipt as plain text, for whoever keeps such things in a folder. */
function saveText() {
  const { receipt, page } = props
  const lines = [
    page.title, page.office, '', `${text.receiptCode}: ${receipt.code}`, `${text.receiptAt}: ${longDayAndTime(receipt.at)} (${zoneWords(ownZone())}) ${receipt.at}`, '',
    ...receipt.files.flatMap((file) => [`${file.name} (${file.item}, ${file.bytes} B)`, `SHA-256 ${file.sha256}`, '']), text.receiptNote, text.checkWhere(checkAddress), '',
  ]
  saveFile(new Blob(['\ufeff', lines.join('\r\n')], { type: 'text/plain;charset=utf-8' }), `${receipt.code}.txt`)
}
</script>

<template>
  <section class="receipt">
    <OfficeMark />
    <h1 tabindex="-1">{{ leftOut.length > 0 ? text.receiptPart : text.receiptTitle }}</h1>
    <p v-for="(words, n) in leftOut" :key="n" class="error" role="alert">{{ words }}</p>
    <p v-if="rehearsal" class="error">{{ text.receiptRehearsal }}</p>
    <p>{{ page.title }}, {{ page.office }}</p>
    <dl>
      <dt>{{ text.receiptCode }}</dt>
      <dd class="mono code">{{ receipt.code }}</dd>
      <dt>{{ text.receiptAt }}</dt>
      <dd>{{ longDayAndTime(receipt.at) }} ({{ zoneWords(ownZone()) }})</dd>
    </dl>
    <ol>
      <li v-for="(file, n) in receipt.files" :key="n">
        <bdi class="mono">{{ file.name }}</bdi> <span class="quiet">{{ file.item }}, {{ sizeWords(file.bytes) }}</span>
        <span v-if="file.sentBefore" class="quiet">{{ ' ' }}({{ text.sentBefore }})</span>
        <span v-if="file.waiting" class="quiet">{{ ' ' }}({{ text.waitsForCheck }})</span>
        <span class="mono sha">{{ file.sha256 }}</span>
      </li>
    </ol>
    <p class="quiet">{{ text.receiptNote }} {{ text.checkWhere(checkAddress) }}</p>
    <ConfirmAddress v-if="page.open && !rehearsal" class="unprinted" :headers="headers" :address="address" @confirmed="lookForAddress" />
    <p class="unprinted" role="status">{{ mailed ? text.receiptMailed(mailed) : '' }}</p>
    <p v-if="mailProblem" class="error" role="alert">{{ mailProblem }}</p>
    <div class="actions">
      <button v-if="mailTo && !mailed" class="button" type="button" :disabled="mailing" @click="mail">{{ text.receiptMail(mailTo) }}</button>
      <button class="button" type="button" @click="print">{{ text.print }}</button>
      <button class="button" type="button" @click="saveText">{{ text.saveText }}</button>
      <button class="button" type="button" @click="$emit('another')">{{ text.another }}</button>
    </div>
  </section>
</template>

<style scoped>
.receipt {
  display: grid;
  gap: 12px;
}
h1 {
  font-size: 26px;
  outline: none;
}
dl {
  display: grid;
  gap: 2px;
  margin: 6px 0;
  padding: 14px 16px;
  border: 1px solid var(--line);
  border-top: 4px solid var(--moss);
  border-radius: var(--corner);
  background: var(--card);
}
dt {
  color: var(--slate);
}
dd {
  margin: 0 0 8px;
}
.code {
  font-size: 26px;
  letter-spacing: 0.04em;
}
ol {
  display: grid;
  gap: 10px;
  margin: 0;
  padding-inline-start: 24px;
}
.sha {
  display: block;
  color: var(--slate);
  font-size: 13px;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
@media print {
  .unprinted,
  .actions {
    display: none;
  }
}
</style>
