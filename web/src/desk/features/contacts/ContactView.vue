<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type Contact, type ListedLetter, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { tileOf } from '../../../shared/tile'
import { dayAndTime } from '../../../shared/time'
import WeaveTile from '../../../shared/WeaveTile.vue'
import PeopleField from '../../PeopleField.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import LetterList from '../post/LetterList.vue'
import { refusalWords } from '../post/letter-words'
import { say, sayProblem } from '../../say'
import type { LiveEvent } from '../../live'
import { useRead } from '../../queries'
import { standingWords, tileWords } from '../round/standing-words'
import { may } from '../../use-session'
import ContactForm from './ContactForm.vue'
import QuietForm from './QuietForm.vue'

const t = text.contacts
const route = useRoute()
const router = useRouter()
const id = route.params.id ? Number(route.params.id) : undefined
const mine = (event: LiveEvent): boolean => event.type === 'contact' || !!page.value?.rounds.some((one) => one.roundId === event.roundId)
const { value: page, problem, load } = useRead(['person', id], (): Promise<Schemas['PersonPage']> => desk.person(id!), { when: !!id, on: mine })
const { value: letters } = useRead(['letters-to', id], () => desk.lettersTo(id!), { when: !!id, on: mine })
/** The last letter to the present address, where it did not arrive. */
const lost = computed(() => {
  const last = letters.value?.find((one) => one.state !== 'WAITING' && one.state !== 'STOPPED')
  return last && (last.state === 'FAILED' || last.state === 'BOUNCED') && last.address === page.value?.contact.email ? last : undefined
})
const { value: parcels } = useRead(['parcels-of', id], () => desk.parcelsOf(id!), { when: !!id, on: (event) => event.type === 'parcel' || event.type === 'contact' })
const { value: alike } = useRead(['alike', id], () => desk.alike(id!), { when: computed(() => !!page.value?.contact.provisional), on: mine })

function drawn(code: number) {
  const { standing, late, overdue } = tileOf(code)
  return { standing, late, overdue }
}

watch(() => page.value?.contact.name, (name) => name && (document.title = `${name} – ${text.product}`))

/** Whoever this provisional contact is said to be, wherever names are not alike. */
/** What counts and what was returned are told apart, here as on the board. */
function sentWords(files: { review: string }[]): string {
  const returned = files.filter((file) => file.review === 'RETURNED').length
  return t.sent(files.length - returned) + (returned > 0 ? text.panel.alsoReturned(returned) : '')
}

const meant = ref<Contact>()

function matchWith(contact: Contact) {
  meant.value = contact.id === id ? undefined : contact
}

/** Sends again what an address had refused before it was mended. */
async function sendAgain(refused: ListedLetter[]) {
  try {
    for (const letter of refused) await desk.letterAgain(letter.id)
    say(text.post.againNow)
  } catch (error) {
    sayProblem(error)
  }
}

async function save(form: Schemas['ContactForm']): Promise<string[]> {
  const before = page.value?.contact.email
  const refused = letters.value?.filter((letter) => letter.state === 'FAILED' || letter.state === 'BOUNCED') ?? []
  const saved = id ? await desk.changeContact(id, form) : await desk.addContact(form)
  if (refused.length > 0 && saved.contact.email !== before) say(t.mended(refused.length), { label: t.sendAgain, run: () => void sendAgain(refused) })
  else say(t.saved)
  if (id) await load()
  else await router.replace({ name: 'contact', params: { id: saved.contact.id } })
  return saved.remarks
}

async function undo(act: number) {
  try {
    const { kept } = await desk.undoContactAct(act)
    say(t.keptOnUndo(kept))
    await load()
  } catch (error) {
    sayProblem(error)
  }
}

async function done(work: Promise<Schemas['ContactsChanged']>, words: string, then: string) {
  try {
    const { act } = await work
    await router.push(then)
    say(words, { label: text.panel.undo, run: () => void undo(act) })
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header>
      <div>
        <h1>{{ page?.contact.name ?? (id ? text.tabs.contacts : t.newTitle) }}</h1>
        <p v-if="page" class="quiet">{{ [page.contact.email, page.contact.organisation, page.contact.groups.join(', ')].filter(Boolean).join(' · ') }}</p>
      </div>
    </header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="id && !page && !problem" />
    <p v-if="lost" class="lost" role="status">
      {{ text.post.didNotArrive(lost.address, lost.trouble) }} {{ refusalWords(lost.trouble) }} <RouterLink :to="{ name: 'post', query: { letter: lost.id } }">{{ text.post.mend }}</RouterLink>
    </p>
    <section v-if="page?.contact.provisional" class="provisional">
      <h2>{{ t.provisionalTitle }}</h2>
      <p>{{ t.provisionalHelp }}</p>
      <p v-if="alike?.length" class="above">{{ t.alike }}:</p>
      <ul>
        <li v-for="one in alike" :key="one.contact.id">
          <RouterLink :to="{ name: 'contact', params: { id: one.contact.id } }">{{ one.contact.name }}</RouterLink>
          <span class="quiet">{{ one.contact.email }}, {{ t.alikePercent(one.percent) }}</span>
          <ElButton v-if="may('CHANGE')" size="small" @click="done(desk.merge(one.contact, page.contact), t.mergedNow, `/contacts/${one.contact.id}`)">{{ t.match }}</ElButton>
        </li>
      </ul>
      <PeopleField v-if="may('CHANGE')" id="match-with" :label="t.matchWith" @contact="matchWith" />
      <p v-if="meant" class="meant">
        <span>{{ meant.name }} <span class="quiet">{{ meant.email }}</span></span>
        <ElButton size="small" @click="done(desk.merge(meant, page.contact), t.mergedNow, `/contacts/${meant.id}`)">{{ t.match }}</ElButton>
      </p>
      <ElButton v-if="may('CHANGE')" size="small" @click="done(desk.discardContact(page.contact.id), t.discarded, '/contacts')">{{ t.discard }}</ElButton>
    </section>
    <div class="columns">
      <ContactForm v-if="!id || page" :contact="page?.contact" :save="save" :reload="load" />
      <section v-if="page" class="rounds">
        <h2>{{ t.rounds }}</h2>
        <p v-if="page.rounds.length === 0" class="quiet">{{ t.noRounds }}</p>
        <article v-for="one in page.rounds" :key="one.row.id">
          <h3><RouterLink :to="{ name: 'round', params: { id: one.roundId }, query: { basket: one.row.id, ...(one.row.removed ? { show: 'removed' } : {}) } }">{{ one.title }}</RouterLink></h3>
          <p>
            {{ standingWords(one.row).main }} <span :class="standingWords(one.row).tone">{{ standingWords(one.row).time }} {{ standingWords(one.row).detail }}</span>
            <span class="quiet">{{ text.state[one.state] }}, {{ one.askedAt ? t.asked(dayAndTime(one.askedAt)) : t.notAsked }}, {{ sentWords(one.files) }}</span>
          </p>
          <p class="tiles">
            <WeaveTile v-for="(item, n) in one.items" :key="item.id" v-bind="drawn(one.row.tiles[n] ?? 0)" :label="tileWords(item, tileOf(one.row.tiles[n] ?? 0))" />
          </p>
          <ul>
            <li v-for="file in one.files" :key="file.id">
              <a :href="`/api/files/${file.id}`" class="mono" download>{{ file.name }}</a>{{ ' ' }}
              <span class="quiet">{{ file.item }}, {{ dayAndTime(file.receivedAt) }}<template v-if="file.review !== 'NONE'">, {{ text.panel.decided[file.review].toLowerCase() }}</template><template v-if="file.reviewReason">: {{ file.reviewReason }}</template></span>
            </li>
          </ul>
        </article>
        <template v-if="parcels?.length">
          <h2 class="post">{{ text.parcels.toContact }}</h2>
          <p v-for="one in parcels" :key="one.id"><RouterLink :to="{ name: 'parcel', params: { id: one.id } }">{{ one.title }}</RouterLink> <span class="quiet">{{ text.parcels.states[one.state] }}, {{ text.parcels.fileCount(one.files) }}<template v-if="one.handedOutAt">, {{ dayAndTime(one.handedOutAt) }}</template></span></p>
        </template>
        <h2 class="post">{{ text.post.letters }}</h2>
        <p v-if="letters?.length === 0" class="quiet">{{ text.post.noLetters }}</p>
        <LetterList v-if="letters" :letters="letters" rounds />
        <QuietForm :contact-id="page.contact.id" />
        <template v-if="page.merged.length > 0">
          <h2>{{ t.merged }}</h2>
          <p v-for="one in page.merged" :key="one.id">{{ one.name }} <span class="quiet">{{ one.email }}</span></p>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 28px;
  align-items: start;
}
.lost {
  margin-bottom: 14px;
  padding: 8px 14px;
  border-left: 4px solid var(--rowan);
  background: var(--card);
}
.provisional {
  margin-bottom: 18px;
  padding: 14px 18px;
  border-left: 4px solid var(--acorn);
  background: var(--card);
}
.provisional ul {
  margin: 4px 0 10px;
  padding: 0;
  list-style: none;
}
.above {
  margin-top: 8px;
  font-weight: 600;
}
h2 {
  margin-bottom: 6px;
  font-size: 19px;
}
h2.post {
  margin-top: 18px;
}
h3 {
  font-size: 17px;
}
article {
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
}
.tiles {
  display: flex;
  gap: 8px;
  margin: 6px 0;
}
article ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
article li {
  padding: 2px 0;
}
.rowan {
  color: var(--rowan);
}
.acorn {
  color: var(--acorn-text);
}
</style>
