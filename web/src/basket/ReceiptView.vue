<script setup lang="ts">
import { text } from '../text/basket'
import OakMark from '../shared/OakMark.vue'
import { sizeWords } from '../shared/size'
import { longDayAndTime, ownZone, zoneWords } from '../shared/time'
import type { Page } from './use-page'
import type { Receipt } from './use-sending'

defineProps<{ receipt: Receipt; page: Page; rehearsal: boolean }>()
defineEmits<{ another: [] }>()

const print = () => window.print()
</script>

<template>
  <section class="receipt">
    <OakMark :size="44" />
    <h1 tabindex="-1">{{ text.receiptTitle }}</h1>
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
        <span class="mono">{{ file.name }}</span> <span class="quiet">{{ file.item }}, {{ sizeWords(file.bytes) }}</span>
        <span v-if="file.sentBefore" class="quiet">({{ text.sentBefore }})</span>
        <span class="mono sha">{{ file.sha256 }}</span>
      </li>
    </ol>
    <p class="quiet">{{ text.receiptNote }}</p>
    <div class="actions">
      <button class="button" type="button" @click="print">{{ text.print }}</button>
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
  padding-left: 24px;
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
  .actions {
    display: none;
  }
}
</style>
