<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { limits } from '../../../api/limits'
import { desk, type PanelFile } from '../../../api/desk'
import { text, withCount } from '../../../text/desk'
import { dayAndTime } from '../../../shared/time'
import PlainName from '../../../shared/PlainName.vue'
import NamedMenu from '../../fields/NamedMenu.vue'
import WeaveTile from '../../../shared/WeaveTile.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import ClaimNote from './ClaimNote.vue'
import ExtendForm from './ExtendForm.vue'
import SendLetters from '../post/SendLetters.vue'
import PanelFileEntry from './PanelFileEntry.vue'
import { tileOf } from '../../../shared/tile'
import { standingWords, tileWords } from './standing-words'
import PanelLetters from './PanelLetters.vue'
import { usePanel } from './use-panel'
import { say, sayProblem } from '../../say'
import { may } from '../../use-session'

const props = defineProps<{ basketId: number; closed: boolean }>()
const emit = defineEmits<{ close: [] }>()
const t = text.panel
const router = useRouter()
const { panel, problem, load, chosen, previewed, linkToCopy, zip, one: chosenFile, toggle, review, remove, restore, waive, set, extend, acceptAll, copyLink } = usePanel(Number(useRoute().params.id), props.basketId)
const box = useTemplateRef('box')
const extending = ref(false)
const noting = ref(false)
const writing = ref(false)
const note = ref('')
const keptApart = (file: PanelFile) => file.claim === 'OPEN' || file.claim === 'DECLINED'
/** The claimed files, those of one sending together. */
const claimed = computed(() => {
  const files = panel.value?.files.filter(keptApart) ?? []
  return [...new Set(files.map((file) => file.submissionId))].map((id) => files.filter((file) => file.submissionId === id))
})
const returned = computed(() => panel.value?.files.filter((file) => file.review === 'RETURNED').length ?? 0)
const tiles = computed(() => panel.value?.row.tiles.map(tileOf) ?? [])
const owed = computed(() => panel.value?.items.map((item, n) => ({ item, tile: tiles.value[n]! })).filter(({ item, tile }) => tile.standing !== 'NOT_OWED' || panel.value!.files.some((file) => file.itemId === item.id && !keptApart(file))) ?? [])

/** Papers go in both directions here from now on; where they do already, this leads there. */
async function bothWays() {
  try {
    const before = (await desk.exchangeOf(props.basketId)).id
    const { id } = before === null ? await desk.makeExchangeOn(props.basketId) : { id: before }
    if (before === null) say(text.exchanges.bothMade)
    await router.push({ name: 'exchange', params: { id } })
  } catch (error) {
    sayProblem(error)
  }
}

interface Offer {
  label: string
  run: () => void
  open?: boolean
}

/** What can be done with this basket; the first is what is due: files are checked, a link is handed over, whoever owes is written to. */
const offered = computed<Offer[]>(() => {
  if (!may('CHANGE')) return []
  const { row, hasLink, linkId } = panel.value!
  const check: Offer | false = row.toCheck > 0 && { label: t.checkFiles(row.toCheck), run: () => document.querySelector('.panel .to-check')?.scrollIntoView({ block: 'start' }) }
  const copy: Offer | false = hasLink && { label: t.copyLink, run: () => void copyLink() }
  const write: Offer | false = !row.walkIn && !props.closed && { label: t.write, run: () => (writing.value = !writing.value), open: writing.value }
  const finished = row.progress === 'COMPLETE' || row.progress === 'CHECKED'
  const due = check || (row.progress === 'NOT_ASKED' && copy) || (!finished && !row.waived && write) || copy || write
  const rest: (Offer | false)[] = [
    check, copy, write,
    !row.waived && { label: t.extend, run: () => (extending.value = !extending.value) },
    row.toCheck > 1 && { label: text.review.acceptAll(row.toCheck), run: () => void acceptAll() },
    !row.walkIn && { label: row.waived ? t.unexcuseAll : t.excuseAll, run: () => void set({ kind: 'EXCUSE', on: !row.waived }, row.waived ? t.askedAgain : t.excusedAll) },
    !row.walkIn && { label: row.paused ? text.acts.unpause : text.acts.pause, run: () => void set({ kind: 'PAUSE', on: !row.paused }, row.paused ? text.acts.unpausedNow : text.acts.pausedNow) },
    linkId !== null && { label: t.linkTerms, run: () => void router.push({ name: 'links', query: { round: panel.value!.roundId, link: linkId } }) },
    may('HAND_OUT') && hasLink && { label: text.exchanges.both, run: () => void bothWays() },
    { label: text.acts.note, run: askNote },
    { label: row.removed ? text.acts.putBack : text.acts.remove, run: () => void set({ kind: 'REMOVE', on: !row.removed }, row.removed ? text.acts.putBackNow : text.acts.removedNow) },
  ]
  const all = rest.filter((one): one is Offer => !!one)
  return due ? [due, ...all.filter((one) => one !== due)] : all
})

function askNote() {
  note.value = panel.value!.row.note
  noting.value = !noting.value
}

async function saveNote() {
  noting.value = false
  await set({ kind: 'NOTE', text: note.value }, text.acts.noted)
}

onMounted(() => box.value?.focus({ preventScroll: true }))
</script>

<template>
  <aside ref="box" class="panel" tabindex="-1" :aria-label="panel ? t.label(panel.row.name) : ''" @keydown.esc.stop="emit('close')">
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <template v-if="panel">
      <header>
        <div>
          <h2><RouterLink :to="{ name: 'contact', params: { id: panel.row.contactId } }">{{ panel.row.name }}</RouterLink></h2>
          <p class="quiet">{{ panel.row.email }}</p>
          <p>{{ standingWords(panel.row).main }}<template v-if="panel.files.length > 0">, {{ t.counting(panel.row.files) }}{{ returned > 0 ? t.alsoReturned(returned) : '' }}</template> <span class="quiet">{{ standingWords(panel.row).time }} {{ standingWords(panel.row).detail }}</span></p>
        </div>
        <ElButton class="close" link :aria-label="t.close" @click="emit('close')">✕</ElButton>
      </header>
      <div class="actions">
        <template v-for="(one, n) in offered" :key="one.label">
          <ElButton v-if="n === 0" type="primary" size="small" :aria-expanded="one.open" @click="one.run">{{ one.label }}</ElButton>
        </template>
        <a v-if="chosen.size > 0" class="button small" :href="chosenFile ?? zip" download>{{ t.downloadChosen(chosen.size) }}</a>
        <a v-else-if="panel.files.length > 1" class="button small" :href="`/api/files.zip?basket=${panel.id}`" download>{{ t.downloadAll }}</a>
        <NamedMenu v-if="offered.length > 1" :label="t.more" :names="offered.slice(1).map((one) => one.label)" small @pick="(n) => offered[n + 1]!.run()" />
      </div>
      <SendLetters v-if="writing" :round-id="panel.roundId" :baskets="[panel.id]" @done="writing = false" />
      <form v-if="noting" class="noting" @submit.prevent="saveNote" @keydown.esc.stop="noting = false">
        <label for="panel-note">{{ text.acts.noteLabel }}</label>
        <ElInput id="panel-note" v-model="note" :maxlength="limits.BasketChange.text.longest" />
        <span><ElButton type="primary" size="small" native-type="submit">{{ text.acts.saveNote }}</ElButton></span>
      </form>
      <p v-else-if="panel.row.note" class="note">{{ panel.row.note }}</p>
      <p v-if="panel.row.provisional" class="quiet">{{ text.contacts.provisionalHere }} <RouterLink :to="{ name: 'contact', params: { id: panel.row.contactId } }">{{ text.contacts.lookAt }}</RouterLink></p>
      <ExtendForm v-if="extending" :date="panel.extension ?? ''" :reason="panel.extensionReason" :save="extend" @done="extending = false" />
      <p v-else-if="panel.extension" class="quiet">{{ t.extended(panel.extension) }}: {{ panel.extensionReason }}</p>
      <p v-if="linkToCopy" class="failure">{{ text.round.copyFailed }} <span class="mono">{{ linkToCopy }}</span></p>

      <section v-if="claimed.length > 0">
        <h3>{{ text.claims.title }}</h3>
        <template v-for="sending in claimed" :key="sending[0]!.submissionId">
          <ClaimNote :file="sending[0]!" :person="panel.row.name" @decided="load" />
          <ul>
            <PanelFileEntry v-for="file in sending" :key="file.id" :file="file" :chosen="chosen.has(file.id)" :previewed="previewed === file.id" @toggle="toggle(file.id)" @preview="previewed = previewed === file.id ? undefined : file.id" @remove="(reason) => remove(file, reason)" />
          </ul>
        </template>
      </section>

      <section v-for="{ item, tile } in owed" :key="item.id" :class="{ 'to-check': panel.files.some((file) => file.itemId === item.id && file.review === 'NONE' && !keptApart(file) && !file.opened) }">
        <h3>
          <WeaveTile :standing="tile.standing" :late="tile.late" :overdue="tile.overdue" :label="tileWords(item, tile)" />
          <span>{{ item.title }}</span>
          <ElButton v-if="may('CHANGE') && !panel.row.waived && tile.standing !== 'NOT_OWED'" type="primary" link size="small"
            :aria-label="`${tile.standing === 'WAIVED' ? t.unexcuse : t.excuse}: ${item.title}`"
            @click="waive(item.id, tile.standing !== 'WAIVED')">
            {{ tile.standing === 'WAIVED' ? t.unexcuse : t.excuse }}
          </ElButton>
        </h3>
        <ul>
          <PanelFileEntry
            v-for="file in panel.files.filter((f) => f.itemId === item.id && !keptApart(f))"
            :key="file.id"
            :file="file"
            :chosen="chosen.has(file.id)"
            :previewed="previewed === file.id"
            @toggle="toggle(file.id)"
            @preview="previewed = previewed === file.id ? undefined : file.id"
            @review="(to, reason) => review(file, to, reason)"
            @remove="(reason) => remove(file, reason)"
          />
        </ul>
      </section>
      <p v-if="panel.files.length === 0" class="quiet">{{ t.noFiles }}</p>
      <section v-if="panel.held.length > 0">
        <h3>{{ text.quarantine.title }}</h3>
        <ul>
          <li v-for="one in panel.held" :key="one.id">
            <PlainName class="mono" :name="one.name" /> <span class="quiet">{{ dayAndTime(one.at) }}</span> <span :class="{ error: one.found }">{{ one.found ? text.quarantine.foundIn(one.found) : text.quarantine.waits }}</span>
            {{ ' ' }}<RouterLink :to="{ name: 'quarantine' }">{{ text.quarantine.decide }}</RouterLink>
          </li>
        </ul>
      </section>
      <section v-if="panel.removed.length > 0">
        <h3>{{ t.removedFiles }}</h3>
        <ul>
          <li v-for="one in panel.removed" :key="one.fileId">
            <PlainName class="mono" :name="one.name" /> <span class="quiet">{{ dayAndTime(one.at) }}, {{ one.reason }}</span>
            <ElButton v-if="may('CHANGE')" size="small" :aria-label="`${t.restore} ${one.name}`" @click="restore(one.fileId)">{{ t.restore }}</ElButton>
          </li>
        </ul>
      </section>

      <PanelLetters v-if="!panel.row.walkIn" :round-id="panel.roundId" :basket-id="panel.id" />

      <section v-if="panel.story.length > 0">
        <h3>{{ t.story }}</h3>
        <ol class="story">
          <li v-for="(event, n) in panel.story" :key="n">
            <span class="quiet">{{ dayAndTime(event.at) }}</span> <span :class="{ undone: event.undone }">{{ withCount(t.events[event.what], event.count) ?? event.what }}<template v-if="event.detail">: {{ event.detail }}</template></span>
            <span v-if="event.by" class="quiet">, {{ event.by }}</span><span v-if="event.undone" class="quiet">, {{ text.acts.undone }}</span>
          </li>
        </ol>
      </section>
    </template>
    <LoadingPart v-else-if="!problem" />
  </aside>
</template>

<style scoped>
.panel {
  position: sticky;
  top: 12px;
  max-height: calc(100vh - 24px);
  padding: 16px 18px;
  overflow: auto;
  border: 1px solid var(--line);
  border-top: 4px solid var(--oak);
  background: var(--card);
  outline: none;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
h2 {
  font-size: 21px;
}
.close {
  align-self: start;
  min-width: 32px;
  min-height: 32px;
  border: 0;
  background: none;
  cursor: pointer;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 10px 0;
}
h3 {
  display: flex;
  align-items: center;
  gap: 10px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
  font-size: 16px;
}
h3 span {
  flex: 1;
}
.noting {
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  background: var(--tint);
}
.note {
  margin-bottom: 8px;
  padding-left: 10px;
  border-left: 3px solid var(--line-strong);
}
.undone {
  text-decoration: line-through;
}
h2 a {
  color: inherit;
  text-decoration-color: var(--line-strong);
}
ul {
  margin: 4px 0 12px;
  padding: 0;
  list-style: none;
}
.story {
  display: grid;
  gap: 6px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
</style>
