<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type LinkQuery, type ListedLink } from '../../../api/desk'
import { text } from '../../../text/desk'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { say, sayProblem } from '../../say'
import { useRead } from '../../queries'
import LinkBulk from './LinkBulk.vue'
import LinkSheet from './LinkSheet.vue'
import { endWords } from './link-words'

/** Every request link: how it stands, and beside the list its terms. */
const t = text.links
const PAGE = 100
const WAIT_MILLISECONDS = 300
type By = NonNullable<LinkQuery['by']>
type Listing = NonNullable<LinkQuery['listing']>
const COLUMNS = Object.keys(t.columns) as By[]
const NUMBERS: By[] = ['USES', 'FILES', 'BYTES']
const route = useRoute()
const router = useRouter()
const find = ref(typeof route.query.find === 'string' ? route.query.find : '')
const words = refDebounced(find, WAIT_MILLISECONDS)
const listing = computed(() => (typeof route.query.listing === 'string' && route.query.listing in t.lists ? (route.query.listing as Listing) : undefined))
const round = computed(() => (route.query.round ? Number(route.query.round) : undefined))
const shown = computed(() => (route.query.link ? Number(route.query.link) : undefined))
const by = computed<By>(() => COLUMNS.find((one) => one === route.query.by) ?? 'END')
const down = computed(() => route.query.down === 'yes')
const number = ref(1)
const query = computed<LinkQuery>(() => ({ find: words.value.trim(), listing: listing.value, round: round.value, by: by.value, down: down.value, from: (number.value - 1) * PAGE }))
const { value: page, problem, load } = useRead(computed(() => ['links', query.value]), () => desk.linkPage(query.value), {
  on: (event) => !['contact', 'letter', 'moment'].includes(event.type),
})
const ticked = reactive(new Set<number>())
const everything = ref(false)
const chosen = computed(() => page.value?.links.filter((link) => ticked.has(link.id)) ?? [])
const whole = computed(() => page.value !== undefined && page.value.links.length > 0 && page.value.links.every((link) => ticked.has(link.id)))
const broken = computed(() => [...new Map(page.value?.links.filter((link) => link.folderGone).map((link) => [link.roundId, link])).values()])

/** What was chosen is meant as it was seen. */
function chooseNone() {
  ticked.clear()
  everything.value = false
}
watch([words, listing, round], () => (number.value = 1))
watch(query, chooseNone)

function go(change: Record<string, string | number | undefined>) {
  void router.replace({ query: { ...route.query, ...change } })
}

function sort(column: By) {
  go({ by: column, down: by.value === column && !down.value ? 'yes' : undefined })
}

function tick(link: ListedLink, on: boolean) {
  everything.value = false
  if (on) ticked.add(link.id)
  else ticked.delete(link.id)
}

function tickPage(on: boolean) {
  everything.value = false
  page.value?.links.forEach((link) => tick(link, on))
}

async function mend(roundId: number) {
  try {
    say(t.mended((await desk.mendFolders(roundId)).made))
    await load()
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header>
      <div>
        <h1>{{ t.title }}</h1>
        <p v-if="round" class="quiet">
          {{ t.ofRound }} <RouterLink :to="{ name: 'round', params: { id: round } }">{{ page?.links[0]?.round ?? text.rounds.round }}</RouterLink>,
          <ElButton type="primary" link size="small" @click="go({ round: undefined })">{{ t.allRounds }}</ElButton>
        </p>
      </div>
    </header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!page && !problem" />
    <template v-if="page">
      <div class="tools">
        <div class="chips" role="group" :aria-label="t.filters">
          <ElButton :aria-pressed="!listing" @click="go({ listing: undefined })">{{ t.all }}<span>{{ page.all }}</span></ElButton>
          <template v-for="(label, key) in t.lists" :key="key">
            <ElButton v-if="page.counts[key] || listing === key || key === 'LIVE'" :aria-pressed="listing === key" @click="go({ listing: listing === key ? undefined : key })">{{ label }}<span>{{ page.counts[key] ?? 0 }}</span></ElButton>
          </template>
        </div>
        <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      </div>
      <p v-for="link in broken" :key="link.roundId" class="gone">
        {{ t.folderGone(link.round) }} <ElButton size="small" @click="mend(link.roundId)">{{ t.mend }}</ElButton>
      </p>
      <EmptyPart v-if="page.links.length === 0" :words="page.all === 0 && !words ? t.none : t.noneFound" />
      <div v-else class="columns" :class="{ alone: !shown }">
        <div>
          <LinkBulk v-if="chosen.length > 0" :links="chosen" :total="page.total" :wanted="everything ? { find: words.trim(), listing: listing ?? null, round: round ?? null } : undefined"
            :more="whole && page.total > page.links.length && !everything" @all="everything = true" @clear="chooseNone" @changed="load" />
          <table class="plain">
            <thead>
              <tr>
                <th scope="col" class="tick"><ElCheckbox :model-value="whole" :aria-label="t.choosePage" @change="(on) => tickPage(!!on)" /></th>
                <template v-for="column in COLUMNS" :key="column">
                  <th v-if="!shown || !['ROUND', 'LAST_USE', 'BYTES'].includes(column)" scope="col" :class="{ number: NUMBERS.includes(column) }" :aria-sort="by === column ? (down ? 'descending' : 'ascending') : undefined">
                    <ElButton type="primary" link size="small" @click="sort(column)">{{ t.columns[column] }}<span v-if="by === column" aria-hidden="true">{{ down ? ' ↓' : ' ↑' }}</span></ElButton>
                  </th>
                </template>
              </tr>
            </thead>
            <tbody>
              <tr v-for="link in page.links" :key="link.id" :class="[link.state, { here: link.id === shown }]">
                <td class="tick"><ElCheckbox :model-value="ticked.has(link.id)" :aria-label="t.chooseOne(link.person ?? t.open)" @change="(on) => tick(link, !!on)" /></td>
                <td>
                  <ElButton class="name" type="primary" link :aria-pressed="link.id === shown" @click="go({ link: link.id })">{{ link.person ?? t.open }}</ElButton>
                  <span v-if="link.removed" class="quiet"> {{ t.removed }}</span>
                </td>
                <td v-if="!shown"><RouterLink :to="{ name: 'round', params: { id: link.roundId }, query: link.basketId ? { basket: link.basketId } : {} }">{{ link.round }}</RouterLink></td>
                <td class="state">{{ t.states[link.state] }}<template v-if="link.passcode">, {{ t.passcode }}</template><strong v-if="link.endsSoon" class="soon">{{ t.endsSoon }}</strong><strong v-if="link.folderGone" class="missing">{{ t.noFolder }}</strong></td>
                <td>{{ endWords(link) }}</td>
                <td v-if="!shown">{{ link.lastUse ? dayAndTime(link.lastUse) : t.neverUsed }}</td>
                <td class="number">{{ link.useLimit === null ? link.uses : t.usedOf(link.uses, link.useLimit) }}</td>
                <td class="number">{{ link.fileLimit === null ? link.files : t.usedOf(link.files, link.fileLimit) }}</td>
                <td v-if="!shown" class="number">{{ sizeWords(link.bytes) }}</td>
              </tr>
            </tbody>
          </table>
          <ElPagination v-if="page.total > PAGE" v-model:current-page="number" class="pages" layout="prev, pager, next" :page-size="PAGE" :total="page.total" />
        </div>
        <LinkSheet v-if="shown" :key="shown" :link-id="shown" @close="go({ link: undefined })" @changed="load" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 14px;
}
.find {
  width: 320px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(400px, 1fr);
  gap: 24px;
  align-items: start;
}
.columns.alone {
  grid-template-columns: minmax(0, 1fr);
}
.columns .plain td {
  padding: 5px 10px;
}
.columns .plain th {
  padding: 5px 10px;
}
.plain th .el-button {
  margin: 0 -4px;
}
.plain th:nth-child(2) .el-button {
  margin: 0;
}
.tick {
  width: 40px;
}
.name {
  font-weight: 600;
}
.number {
  text-align: right;
}
.soon,
.missing {
  display: block;
  color: var(--acorn-text);
  font-weight: 400;
}
.missing {
  color: var(--rowan);
}
.here td {
  background: var(--leaf-tint);
}
.gone {
  margin-bottom: 10px;
  padding: 8px 12px;
  border-left: 4px solid var(--rowan);
  background: var(--rowan-tint);
}
.pages {
  margin-top: 12px;
}
</style>
