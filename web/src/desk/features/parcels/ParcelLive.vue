<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { desk, type ListedLetter, type ParcelInFull } from '../../../api/desk'
import { limits } from '../../../api/limits'
import PlainName from '../../../shared/PlainName.vue'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import { text } from '../../../text/desk'
import NamedMenu from '../../fields/NamedMenu.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'
import { OFFERED_DAYS } from '../links/renewals'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import { formOf, parcelNames, sheetOf } from './parcel-form'
import ParcelPeoplePart from './ParcelPeoplePart.vue'
import ParcelTermsPart from './ParcelTermsPart.vue'
import WayRow from './WayRow.vue'
import { may } from '../../use-session'

/** A parcel that was handed out: who has seen and taken what, and what can be done about it. */
const props = defineProps<{ full: ParcelInFull; reload: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [] }>()
const t = text.parcels
const id = props.full.parcel.id
const { value: letters } = useRead(['parcel-letters', id], () => desk.parcelLetters(id), { on: (event) => event.type === 'letter' || event.type === 'parcel' })
/** The newest letter to each person. */
const newest = computed(() => {
  const byContact = new Map<number, ListedLetter>()
  for (const letter of letters.value ?? []) if (!byContact.has(letter.contactId)) byContact.set(letter.contactId, letter)
  return byContact
})
const opened = ref<'people' | 'terms'>()
const more = ref<{ name: string; email: string }[]>([])
const byLetter = ref(true)
const form = reactive(formOf(props.full))
const parcel = computed(() => props.full.parcel)
const kept = computed(() => parcel.value.state !== 'PURGED')

async function work(what: () => Promise<unknown>) {
  try {
    await what()
  } catch (error) {
    sayProblem(error)
  }
  emit('changed')
}

const goOn = () => work(async () => {
  await desk.parcelGoesOn(id)
  say(t.wentOn)
})
const stop = () => work(async () => {
  await desk.stopParcel(id)
  say(t.stopped, { label: t.undo, run: () => void goOn() })
})
const renew = (days: number) => work(async () => {
  await desk.renewParcel(id, days)
  say(t.renewed(dayAndTime((await desk.parcel(id)).parcel.endsAt)))
})
const again = () => work(async () => {
  const written = (await desk.parcelAgain(id, [])).count
  say(written > 0 ? t.againDone(written) : t.againNone)
})

function open(what: 'people' | 'terms') {
  if (what === 'terms') anew()
  opened.value = opened.value === what ? undefined : what
}

const people = ref<{ addTyped: () => Promise<boolean> }>()
const { problem: addProblem, busy: adding, submit: add } = useSubmit(async () => {
  if (!(await people.value?.addTyped())) return
  const { count } = await desk.addToParcel(id, more.value, byLetter.value)
  say(count > 0 ? t.added(count) : t.addedNone)
  more.value = []
  opened.value = undefined
  emit('changed')
})

const { conflicts, asked, problem: changeProblem, busy: changing, submit: change, decide, anew } = useBoth(form, {
  kept: () => formOf(props.full),
  version: () => props.full.version,
  reload: props.reload,
  send: () => desk.changeParcel(id, sheetOf(form, props.full.version, false)),
  done: () => {
    say(t.changed)
    opened.value = undefined
    emit('changed')
  },
})
const at = (field: string) => changeProblem.value?.at(field) ?? ''
</script>

<template>
  <div class="live">
    <div>
      <div v-if="kept && may('HAND_OUT')" class="actions">
        <ElButton v-if="parcel.state === 'STOPPED'" type="primary" @click="goOn">{{ t.goOn }}</ElButton>
        <ElButton v-else-if="parcel.state !== 'ENDED'" @click="stop">{{ t.stop }}</ElButton>
        <NamedMenu :label="t.renew" :names="OFFERED_DAYS.map((days) => t.renewFor(days))" @pick="(n) => renew(OFFERED_DAYS[n]!)" />
        <ElButton v-if="parcel.people > 0 && parcel.state !== 'STOPPED' && parcel.state !== 'ENDED'" @click="again">{{ t.again }}</ElButton>
        <ElButton :aria-expanded="opened === 'people'" @click="open('people')">{{ t.addPeople }}</ElButton>
        <ElButton :aria-expanded="opened === 'terms'" @click="open('terms')">{{ t.change }}</ElButton>
      </div>
      <form v-if="opened === 'people'" class="box" novalidate @submit.prevent="add" @keydown.esc.stop="opened = undefined">
        <ParcelPeoplePart id="parcel-more" ref="people" v-model="more" :error="addProblem?.errors[0]?.detail ?? addProblem?.detail" />
        <ElCheckbox v-model="byLetter">{{ t.letter }}</ElCheckbox>
        <div class="actions"><ElButton type="primary" size="small" native-type="submit" :loading="adding">{{ t.addPasted }}</ElButton><ElButton size="small" @click="opened = undefined">{{ text.round.cancel }}</ElButton></div>
      </form>
      <BothVersions v-if="asked" :conflicts="conflicts" :names="parcelNames()" @decide="decide" />
      <form v-if="opened === 'terms'" class="box" novalidate @submit.prevent="change" @keydown.esc.stop="opened = undefined">
        <FieldBox id="parcel-title" v-slot="{ attrs }" :label="t.name" :error="at('title')"><ElInput v-bind="attrs" v-model="form.title" :maxlength="limits.ParcelSheet.title.longest" /></FieldBox>
        <FieldBox id="parcel-message" v-slot="{ attrs }" :label="t.message" :error="at('message')"><ElInput v-bind="attrs" v-model="form.message" type="textarea" :rows="3" :maxlength="limits.ParcelSheet.message.longest" /></FieldBox>
        <ParcelTermsPart v-model="form" :error-at="at" :passcode-set="parcel.passcode" />
        <p v-if="changeProblem && changeProblem.errors.length === 0" class="error" role="alert">{{ changeProblem.title }}. {{ changeProblem.detail }}</p>
        <div class="actions"><ElButton type="primary" size="small" native-type="submit" :loading="changing">{{ t.save }}</ElButton><ElButton size="small" @click="opened = undefined">{{ text.round.cancel }}</ElButton></div>
      </form>

      <h2>{{ t.peopleTitle }}</h2>
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">{{ t.person }}</th>
            <th scope="col">{{ t.letterColumn }}</th>
            <th scope="col">{{ t.seen }}</th>
            <th scope="col">{{ t.took }}</th>
            <th scope="col"><span class="hidden-text">{{ t.menu }}</span></th>
          </tr>
        </thead>
        <tbody>
          <WayRow v-for="way in full.ways" :key="way.id" :full="full" :way="way" :letter="way.contactId === null ? undefined : newest.get(way.contactId)" @changed="emit('changed')" />
        </tbody>
      </table>

      <h2>{{ t.files }} <span class="quiet">{{ t.fileCount(parcel.files) }}, {{ sizeWords(parcel.bytes) }}</span></h2>
      <ul class="files">
        <li v-for="file in full.files" :key="file.id">
          <PlainName class="mono" :name="file.name" />
          <span class="quiet">{{ sizeWords(file.bytes) }}<template v-if="file.picked">, {{ t.pickedFrom }}</template><template v-if="file.trouble">, <strong class="error">{{ t.troubles[file.trouble] }}</strong></template><template v-if="file.unchecked">, <span class="soon">{{ t.unchecked }}</span></template>; {{ t.takenBy(file.taken) }}</span>
        </li>
      </ul>
    </div>

    <aside>
      <h2>{{ t.termsTitle }}</h2>
      <p>{{ t.untilWords(dayAndTime(parcel.endsAt)) }}<template v-if="parcel.beginsAt">, {{ t.beginsWords(dayAndTime(parcel.beginsAt)) }}</template><template v-if="parcel.passcode">, {{ t.passcode }}</template><template v-if="full.mostPickUps !== null">, {{ t.limitWords(full.mostPickUps) }}</template></p>
      <p class="quiet">{{ t.purgeWords(dayAndTime(parcel.purgeAt)) }}</p>
      <p v-if="full.message" class="message">{{ full.message }}</p>
      <h2>{{ t.tookTitle }}</h2>
      <p v-if="full.took.length === 0" class="quiet">{{ t.tookNone }}</p>
      <ol v-else>
        <li v-for="(one, n) in full.took" :key="n"><span class="quiet">{{ dayAndTime(one.at) }}</span> {{ one.name ? t.tookLine(one.name, one.file) : t.tookAnybody(one.file) }} <span class="quiet">{{ t.fromWhere(one.from) }}</span></li>
      </ol>
      <h2>{{ t.storyTitle }}</h2>
      <ol>
        <li v-for="act in full.story" :key="act.id"><span class="quiet">{{ dayAndTime(act.at) }}, {{ act.by || t.program }}</span> {{ t.acts[act.what] }}<template v-if="act.said">: {{ act.said }}</template></li>
      </ol>
    </aside>
  </div>
</template>

<style scoped>
.live {
  display: grid;
  grid-template-columns: minmax(0, 1.9fr) minmax(260px, 1fr);
  gap: 28px;
  align-items: start;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.box {
  display: grid;
  gap: 10px;
  margin-top: 12px;
  padding: 12px 16px;
  border: 1px solid var(--line-strong);
  background: var(--card);
}
h2 {
  margin: 20px 0 6px;
  font-size: 18px;
}
h2 .quiet {
  font: 400 15px var(--text);
}
aside {
  padding: 0 18px 16px;
  border: 1px solid var(--line);
  border-top: 4px solid var(--oak);
  background: var(--card);
}
.message {
  margin-top: 8px;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
ol,
.files {
  max-height: 300px;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}
ol li {
  padding: 3px 0;
  overflow-wrap: anywhere;
}
.files li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  justify-content: space-between;
  padding: 5px 0;
  border-top: 1px solid var(--line);
}
.soon {
  color: var(--acorn-text);
}
</style>
