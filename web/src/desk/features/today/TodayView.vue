<script setup lang="ts">
import { computed } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { text, withCount } from '../../../text/desk'
import IdentityMark from '../../../shared/IdentityMark.vue'
import { dayAndTime } from '../../../shared/time'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { say, sayProblem } from '../../say'
import { useRead } from '../../queries'
import { may } from '../../use-session'

const t = text.today
const any = { on: () => true }
const { value: today, problem, load } = useRead(['today'], desk.today, any)
const { value: letters } = useRead(['coming-letters'], desk.comingLetters, any)
const { value: post } = useRead(['post'], desk.post, any)
const { value: mail } = useRead(['inward', false, ''], () => desk.inward(false, '', undefined, undefined), { on: (event) => event.type === 'letter' })
const failed = computed(() => post.value?.undelivered ?? 0)
const trouble = computed(() => post.value?.trouble ?? '')

const heading = computed(() => (today.value ? dayWords(today.value.date, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }) : ''))

function dayWords(date: string, options: Intl.DateTimeFormatOptions): string {
  return new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' }).format(new Date(`${date}T12:00:00Z`))
}

const lettersOn = (date: string) => (letters.value ?? []).filter((one) => one.date === date)

function weekend(date: string): boolean {
  return [0, 6].includes(new Date(`${date}T12:00:00Z`).getUTCDay())
}

/** Each entry leads straight to the thing. */
function target(one: Schemas['NeedsYou']) {
  const params = { id: one.roundId }
  if (one.what === 'check') return { name: 'review', params }
  if (one.what === 'link-ends') return { name: 'links', query: { listing: 'ENDS_SOON', round: one.roundId } }
  if (one.what === 'link-full') return { name: 'links', query: { round: one.roundId, by: 'FILES', down: 'yes' } }
  if (one.what === 'malware' || one.what === 'unchecked') return { name: 'quarantine' }
  if (['root-away', 'waiting', 'not-told'].includes(one.what)) return { name: one.what === 'root-away' ? 'setup' : 'journal' }
  if (one.what === 'parcel-lost') return { name: 'parcels' }
  if (one.what === 'changed-by-hand' || one.what === 'gone-or-altered') return { name: 'folders', query: { show: 'hand' } }
  if (one.what === 'retention' || one.what === 'retention-soon') return { name: 'folders', query: { show: 'kept' } }
  if (one.what === 'space-office' || one.what === 'space-user') return { name: 'team' }
  if (one.what === 'tray') return { name: 'tray' }
  if (one.what === 'prepared') return { name: 'sheet', params }
  const lists: Record<string, string> = { overdue: 'overdue', claimed: 'claimed', 'hand-over': 'handOver', 'walk-in': 'walkIns' }
  return { name: 'round', params, query: lists[one.what] ? { show: lists[one.what] } : {} }
}

function need(one: Schemas['NeedsYou']): string {
  return withCount(t.needs[one.what], one.count) ?? one.what
}

async function seen() {
  try {
    await desk.seen()
    await load()
    say(t.nothingIn)
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ heading || text.tabs.today }}</h1>
      <RouterLink v-if="today && !today.anyRound && may('CHANGE')" class="button primary" to="/rounds/new">{{ t.compose }}</RouterLink>
    </header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!today && !problem" />
    <p v-if="today && !today.anyRound" class="empty">{{ t.noRound }}</p>
    <div v-if="today" class="columns">
      <section aria-labelledby="just-in">
        <h2 id="just-in">{{ t.justIn }} <ElButton v-if="today.unseen > 0" size="small" @click="seen">{{ t.seen }}</ElButton></h2>
        <p v-if="today.justIn.length === 0" class="quiet none">{{ t.nothingIn }}</p>
        <ul>
          <li v-for="one in today.justIn" :key="one.basketId" :class="{ fresh: one.unseen }">
            <RouterLink :to="{ name: 'round', params: { id: one.roundId }, query: { basket: one.basketId } }">{{ one.person }}</RouterLink> <IdentityMark :identity="one.identity" />
            <span class="when quiet">{{ dayAndTime(one.last) }}</span>
            <p class="quiet">{{ t.files(one.files) }}, {{ one.round }}<strong v-if="one.unseen" class="badge">{{ t.fresh }}</strong></p>
            <ElTooltip v-for="name in one.names" :key="name" :content="name" :show-after="300"><p class="mono name">{{ name }}</p></ElTooltip>
            <p v-if="one.files > one.names.length" class="quiet">{{ t.more(one.files - one.names.length) }}</p>
          </li>
        </ul>
      </section>
      <section aria-labelledby="needs-you">
        <h2 id="needs-you">{{ t.needsYou }}</h2>
        <p v-if="today.needsYou.length === 0 && !failed && !trouble && !mail?.unread && !mail?.trouble" class="quiet none">{{ t.nothingNeeded }}</p>
        <ul>
          <li v-if="trouble" class="overdue">
            <RouterLink to="/setup">{{ text.post.troubleNeed }}</RouterLink>
            <p class="quiet">{{ trouble }}</p>
          </li>
          <li v-if="failed" class="overdue">
            <RouterLink :to="{ name: 'post', query: { state: 'FAILED' } }">{{ text.post.failedNeed(failed) }}</RouterLink>
          </li>
          <li v-if="mail && mail.unread > 0"><RouterLink to="/post/inward">{{ text.inward.unreadNeed(mail.unread) }}</RouterLink></li>
          <li v-if="mail?.trouble" class="overdue">
            <RouterLink to="/setup">{{ text.inward.mailboxNeed }}</RouterLink>
            <p class="quiet">{{ mail.trouble }}</p>
          </li>
          <li v-for="one in today.needsYou" :key="one.what + one.roundId" :class="one.what">
            <RouterLink :to="target(one)">{{ need(one) }}</RouterLink>
            <p class="quiet">{{ one.round }}</p>
            <p>{{ one.people.join(', ') }}</p>
          </li>
        </ul>
      </section>
      <section aria-labelledby="coming-up">
        <h2 id="coming-up">{{ t.comingUp }}</h2>
        <ol class="strip">
          <li v-for="day in today.comingUp" :key="day.date" :class="{ weekend: weekend(day.date), filled: day.deadlines.length || lettersOn(day.date).length }">
            <span class="day">{{ dayWords(day.date, { weekday: 'short', day: 'numeric', month: 'short' }) }}</span>
            <span v-if="day.deadlines.length === 0 && lettersOn(day.date).length === 0" class="quiet" aria-hidden="true">·</span>
            <p v-for="one in day.deadlines" :key="one.roundId + one.at">
              <RouterLink :to="{ name: 'round', params: { id: one.roundId }, query: one.owing ? { show: 'owes' } : {} }">{{ one.round }}</RouterLink>
              {{ t.deadline(one.owing, one.asked) }}<span v-if="one.extension" class="quiet"> ({{ t.extended }})</span>
            </p>
            <p v-for="one in lettersOn(day.date)" :key="`${one.roundId} ${one.kind}`">
              {{ text.post.several[one.kind]!(one.letters) }} <RouterLink class="quiet" :to="{ name: 'round', params: { id: one.roundId }, query: { show: 'owes' } }">{{ one.round }}</RouterLink>
            </p>
          </li>
        </ol>
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 1.15fr 1fr 1fr;
  gap: 28px;
  align-items: start;
}
h2 {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: 40px;
  padding-bottom: 6px;
  border-bottom: 2px solid var(--oak);
  font-size: 19px;
}
h2 .el-button {
  font-family: var(--text);
  font-weight: 400;
}
ul,
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 10px 4px;
  border-bottom: 1px solid var(--line);
}
ul a {
  font-weight: 600;
}
.name {
  overflow: hidden;
  font-size: 14px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.none {
  padding: 12px 4px;
}
.when {
  float: right;
  font-size: 15px;
}
.fresh {
  padding-left: 12px;
  border-left: 4px solid var(--moss);
  background: var(--card);
}
.badge {
  margin-left: 8px;
  padding: 0 8px;
  border-radius: var(--corner);
  background: var(--leaf-tint);
  color: var(--leaf-deep);
  font-size: 14px;
}
.overdue a,
.no-room a,
.link-full a {
  color: var(--rowan);
}
.hand-over a {
  color: var(--acorn-text);
}
.strip li {
  display: grid;
  grid-template-columns: 100px 1fr;
  padding: 5px 4px;
}
.strip li p {
  grid-column: 2;
}
.strip .weekend {
  background: var(--tint);
}
.strip .filled .day {
  font-weight: 600;
}
.empty {
  margin-bottom: 16px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
