<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type ListedLetter, type ListedWay, type ParcelInFull } from '../../../api/desk'
import { dayAndTime } from '../../../shared/time'
import { text } from '../../../text/desk'
import { copy } from '../../copy'
import NamedMenu from '../../fields/NamedMenu.vue'
import { ask, say, sayProblem } from '../../say'
import { saveBlob } from '../links/save-blob'
import { may } from '../../use-session'

/** Somebody's way to a parcel: whether the letter arrived, the page was seen, and what was taken. */
const props = defineProps<{ full: ParcelInFull; way: ListedWay; letter?: ListedLetter }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.parcels
const qr = ref(false)
const parcel = props.full.parcel.id
const url = computed(() => location.origin + props.way.path)
const who = computed(() => props.way.name || t.anybody)
const live = computed(() => props.full.parcel.state === 'LIVE' || props.full.parcel.state === 'WAITING')

const acts = computed(() => [
  ...(!props.way.withdrawn && live.value ? [
    { label: t.copyDirect, run: copyDirect },
    { label: t.qr, run: () => { qr.value = !qr.value } },
    { label: t.sheet, run: print },
    ...(props.way.contactId !== null ? [{ label: t.writeAgain, run: again }] : []),
    { label: t.newAddress, run: newAddress },
    { label: t.withdraw, run: withdraw },
  ] : []),
  ...(props.way.withdrawn ? [{ label: t.giveBack, run: giveBack }] : []),
])

async function work(what: () => Promise<unknown>) {
  try {
    await what()
  } catch (error) {
    sayProblem(error)
  }
  emit('changed')
}

async function copyLink() {
  if (await copy(url.value)) say(t.copied)
}

async function copyDirect() {
  if (await copy(location.origin + props.way.directPath)) say(t.copied)
}

const again = () => work(async () => say(t.againDone((await desk.parcelAgain(parcel, [props.way.id])).count)))
const print = () => work(async () => saveBlob(await desk.parcelSheets(parcel, [props.way.id], ''), `${who.value}.pdf`))
const giveBack = () => work(async () => {
  await desk.giveWayBack(parcel, props.way.id)
  say(t.givenBack(who.value))
})
const withdraw = () => work(async () => {
  await desk.withdrawWay(parcel, props.way.id)
  say(t.withdrawnSaid(who.value), { label: t.undo, run: () => void giveBack() })
})

async function newAddress() {
  if (!(await ask(t.newAddressQuestion))) return
  await work(async () => {
    await desk.newWayAddress(parcel, props.way.id)
    say(t.newAddressDone)
  })
}
</script>

<template>
  <tr :class="{ gone: way.withdrawn }">
    <td>
      <RouterLink v-if="way.contactId !== null" :to="{ name: 'contact', params: { id: way.contactId } }">{{ way.name }}</RouterLink><em v-else>{{ t.anybody }}</em>
      <div v-if="way.withdrawn" class="quiet">{{ t.withdrawn }}</div>
      <div v-if="qr" class="qr"><img :src="`/api/parcel-handouts/${way.id}/qr.svg`" :alt="t.qrOf" width="160" height="160" /></div>
    </td>
    <td>
      <RouterLink v-if="letter" :to="{ name: 'post', query: { letter: letter.id } }">{{ text.post.states[letter.state] }}</RouterLink>
    </td>
    <td>{{ way.seenAt ? dayAndTime(way.seenAt) : t.notSeen }}</td>
    <td>
      <strong v-if="way.files >= full.files.length && way.files > 0">{{ t.everything }}</strong><template v-else>{{ t.tookOf(way.files, full.files.length) }}</template>
      <span v-if="way.begun > 0" class="quiet">, {{ t.tookBegun(way.begun) }}</span>
      <span v-if="way.times > way.files" class="quiet"> ({{ t.tookTimes(way.times) }})</span>
      <div v-if="way.lastAt" class="quiet">{{ dayAndTime(way.lastAt) }}</div>
    </td>
    <td>
      <div v-if="may('HAND_OUT')" class="acts">
      <ElButton v-if="!way.withdrawn && live" size="small" :aria-label="`${t.copyLink}: ${who}`" @click="copyLink">{{ t.copyLink }}</ElButton>
      <NamedMenu v-if="acts.length > 0" small :label="t.menu" :names="acts.map((act) => act.label)" @pick="(n) => void acts[n]!.run()" />
      </div>
    </td>
  </tr>
</template>

<style scoped>
.gone td {
  color: var(--slate);
}
.acts {
  display: flex;
  gap: 8px;
  justify-content: end;
}
.qr {
  margin-top: 8px;
}
</style>
