<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type ListedLink, type Schemas } from '../../../api/desk'
import { limits } from '../../../api/limits'
import { text } from '../../../text/desk'
import BulkFrame from '../../BulkFrame.vue'
import NamedMenu from '../../fields/NamedMenu.vue'
import { say } from '../../say'
import { useSubmit } from '../../use-submit'
import { renewals } from './renewals'
import { saveBlob } from './save-blob'
import { useLinkActs } from './use-link-acts'

/** What can be done to all links chosen at once. */
const props = defineProps<{ links: ListedLink[]; total: number; wanted?: Schemas['Wanted']; more: boolean }>()
const emit = defineEmits<{ all: []; clear: []; changed: [] }>()
const t = text.links
const MOST_SHEETS = 500
const { act } = useLinkActs()
const form = ref<'passcode' | 'print'>()
const passcode = ref('')
const count = computed(() => (props.wanted ? props.total : props.links.length))
const target = computed(() => (props.wanted ? { all: props.wanted } : { ids: props.links.map((link) => link.id) }))
const any = (test: (link: ListedLink) => boolean) => !!props.wanted || props.links.some(test)

async function run(kind: Schemas['LinkBulk']['kind'], days: number | null = null) {
  if (await act({ kind, days, ...target.value }, count.value)) emit('changed')
}

async function setPasscode() {
  if (await act({ kind: 'PASSCODE', passcode: passcode.value, ...target.value }, count.value)) {
    form.value = undefined
    emit('changed')
  }
}

function unfold(which: 'passcode' | 'print') {
  passcode.value = ''
  form.value = form.value === which ? undefined : which
}

const { problem, busy, submit: print } = useSubmit(async () => {
  saveBlob(await desk.handouts(props.links.map((link) => link.id), passcode.value), 'hand-outs.pdf')
  form.value = undefined
})

function askPrint() {
  if (props.wanted && props.total > props.links.length) return say(t.tooManyToPrint(MOST_SHEETS))
  unfold('print')
}
</script>

<template>
  <BulkFrame :label="t.chosen(count)">
    <template #actions>
      <ElButton v-if="more" type="primary" link size="small" @click="emit('all')">{{ t.chooseAll(total) }}</ElButton>
      <NamedMenu :label="t.renew" :names="renewals.map((one) => one.label)" small @pick="(n) => run('RENEW', renewals[n]!.days)" />
      <ElButton v-if="any((link) => link.state !== 'PAUSED')" size="small" @click="run('PAUSE')">{{ t.pause }}</ElButton>
      <ElButton v-if="any((link) => link.state === 'PAUSED')" size="small" @click="run('GO_ON')">{{ t.goOn }}</ElButton>
      <ElButton v-if="any((link) => link.state !== 'WITHDRAWN')" size="small" @click="run('WITHDRAW')">{{ t.withdraw }}</ElButton>
      <ElButton v-if="any((link) => link.state === 'WITHDRAWN')" size="small" @click="run('GIVE_BACK')">{{ t.giveBack }}</ElButton>
      <ElButton size="small" :aria-expanded="form === 'passcode'" @click="unfold('passcode')">{{ t.setPasscode }}</ElButton>
      <ElButton size="small" :aria-expanded="form === 'print'" @click="askPrint">{{ t.print }}</ElButton>
      <ElButton type="primary" link size="small" @click="emit('clear')">{{ t.chooseNone }}</ElButton>
    </template>
    <form v-if="form === 'passcode'" class="form" @submit.prevent="setPasscode" @keydown.esc.stop="form = undefined">
      <label for="bulk-passcode">{{ t.newPasscode }}</label>
      <ElInput id="bulk-passcode" v-model="passcode" autocomplete="off" :maxlength="limits.RoundSheet.passcode.longest" />
      <span><ElButton type="primary" size="small" native-type="submit">{{ t.savePasscode }}</ElButton></span>
    </form>
    <form v-if="form === 'print'" class="form" @submit.prevent="print" @keydown.esc.stop="form = undefined">
      <template v-if="links.some((link) => link.passcode)">
        <label for="bulk-print">{{ t.printPasscode }}</label>
        <ElInput id="bulk-print" v-model="passcode" autocomplete="off" :maxlength="limits.RoundSheet.passcode.longest" :aria-invalid="!!problem" />
      </template>
      <p v-if="problem" class="error" role="alert">{{ problem.at('passcode') || problem.detail }}</p>
      <span><ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ busy ? t.printing : t.doPrint }}</ElButton></span>
    </form>
  </BulkFrame>
</template>

<style scoped>
.form {
  display: grid;
  gap: 6px;
}
</style>
