<script setup lang="ts">
import { computed } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import AskOnce from '../../AskOnce.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { copy } from '../../copy'
import { say, sayProblem } from '../../say'
import { useRead } from '../../queries'
import AppPasswordsCard from './AppPasswordsCard.vue'
import CalendarCard from './CalendarCard.vue'
import PasswordCard from './PasswordCard.vue'
import DigestCard from './DigestCard.vue'
import PostCard from './PostCard.vue'
import FactorCard from './FactorCard.vue'
import PasskeysCard from './PasskeysCard.vue'
import SessionsCard from './SessionsCard.vue'
import { may } from '../../use-session'
import RootsCard from './RootsCard.vue'

const t = text.setup
const { value: calendars, problem, load } = useRead(['calendars'], desk.calendars)
const { value: feed, load: loadFeed } = useRead(['feed'], desk.feed)
const { value: templates, load: loadTemplates } = useRead(['templates'], desk.templates)
const { value: known } = useRead(['countries'], desk.countries)
const countries = computed(() => known.value ?? [])


async function tryTo(work: () => Promise<unknown>, then: () => Promise<void>, words?: string) {
  try {
    await work()
    await then()
    if (words) say(words)
  } catch (error) {
    sayProblem(error)
  }
}

function addCalendar() {
  let name = t.newName
  for (let n = 2; calendars.value?.some((one) => one.name === name); n++) name = `${t.newName} ${n}`
  return tryTo(() => desk.addCalendar({ version: 0, name, weekend: ['SATURDAY', 'SUNDAY'], country: '', region: '' }), load)
}
</script>

<template>
  <div class="page">
    <header><h1>{{ t.title }}</h1></header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <section v-if="may('ADMINISTER')" aria-labelledby="team">
      <h2 id="team">{{ text.team.title }}</h2>
      <p class="quiet">{{ text.team.intro }}</p>
      <div class="actions"><RouterLink class="button" :to="{ name: 'team' }">{{ text.team.open }}</RouterLink> <RouterLink class="button" :to="{ name: 'audit' }">{{ text.audit.open }}</RouterLink></div>
    </section>
    <section v-if="may('SET_UP')" aria-labelledby="brand">
      <h2 id="brand">{{ text.brand.title }}</h2>
      <p class="quiet">{{ text.brand.intro }}</p>
      <RouterLink class="button" :to="{ name: 'brand' }">{{ text.brand.open }}</RouterLink>
    </section>
    <section aria-labelledby="calendars">
      <h2 id="calendars">{{ t.calendars }}</h2>
      <p class="quiet">{{ t.calendarsHelp }}</p>
      <LoadingPart v-if="!calendars && !problem" />
      <CalendarCard v-for="one in calendars" :key="one.id" :calendar="one" :countries="countries" :reload="load" @changed="load" />
      <ElButton v-if="may('CHANGE')" @click="addCalendar">{{ t.addCalendar }}</ElButton>
    </section>
    <section aria-labelledby="filing">
      <h2 id="filing">{{ text.filing.title }}</h2>
      <p class="quiet">{{ text.filing.introOffice }}</p>
      <div class="actions"><RouterLink class="button" :to="{ name: 'filing' }">{{ text.filing.ofOffice }}</RouterLink> <RouterLink class="button" :to="{ name: 'journal' }">{{ text.filing.toJournal }}</RouterLink></div>
    </section>
    <RootsCard v-if="may('SET_UP')" />
    <AppPasswordsCard />
    <PostCard v-if="may('CHANGE')" />
    <DigestCard />
    <section aria-labelledby="quarantine">
      <h2 id="quarantine">{{ text.quarantine.title }}</h2>
      <p class="quiet">{{ text.quarantine.intro }}</p>
      <RouterLink class="button" :to="{ name: 'quarantine' }">{{ text.quarantine.open }}</RouterLink>
    </section>
    <PasswordCard />
    <FactorCard />
    <PasskeysCard />
    <SessionsCard />
    <section aria-labelledby="feed">
      <h2 id="feed">{{ t.feed }}</h2>
      <p class="quiet">{{ t.feedHelp }}</p>
      <p v-if="feed?.url" class="mono address">{{ feed.url }}</p>
      <div class="actions">
        <ElButton v-if="feed?.url" @click="tryTo(() => copy(feed!.url!), async () => {}, text.round.copied)">{{ t.copyFeed }}</ElButton>
        <ElButton v-if="!feed?.url" @click="tryTo(desk.makeFeed, loadFeed)">{{ t.makeFeed }}</ElButton>
        <AskOnce v-else plain :label="t.renewFeed" :question="t.confirmFeed" @sure="tryTo(desk.makeFeed, loadFeed)" />
        <AskOnce v-if="feed?.url" :label="t.endFeed" :question="t.confirmFeed" @sure="tryTo(desk.endFeed, loadFeed)" />
      </div>
    </section>
    <section aria-labelledby="templates">
      <h2 id="templates">{{ text.templates.listed }}</h2>
      <p v-if="templates?.length === 0" class="quiet">{{ text.templates.none }}</p>
      <ul>
        <li v-for="one in templates" :key="one.id">
          {{ one.name }} <span class="quiet">{{ text.templates.kinds[one.kind] }}, {{ one.sheet.items.map((item) => item.title).join(', ') }}</span>
          <ElButton type="primary" link size="small"
            :aria-label="`${text.templates.discard}: ${one.name}`"
            @click="tryTo(() => desk.discardTemplate(one.id), async () => { await loadTemplates(); say(text.templates.discarded, { label: text.panel.undo, run: () => void tryTo(() => desk.keepTemplate(one.kind, one.name, one.sheet, false), loadTemplates) }) })">
            {{ text.templates.discard }}
          </ElButton>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
section {
  max-width: 1000px;
  margin-bottom: 32px;
}
h2 {
  margin-bottom: 4px;
  font-size: 20px;
}
.address {
  margin: 10px 0;
  padding: 8px 12px;
  background: var(--card);
}
.actions {
  display: flex;
  gap: 10px;
  margin-top: 10px;
}
ul {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
</style>
