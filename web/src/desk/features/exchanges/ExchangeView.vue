<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { desk } from '../../../api/desk'
import { dayAndTime } from '../../../shared/time'
import { text } from '../../../text/desk'
import { copy } from '../../copy'
import NamedMenu from '../../fields/NamedMenu.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { may } from '../../use-session'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import { OFFERED_DAYS } from '../links/renewals'
import ForThem from './ForThem.vue'
import FromThem from './FromThem.vue'
import RightsPart from './RightsPart.vue'

/** One exchange: what came from its person, what lies there for them, and on which terms. */
const t = text.exchanges
const route = useRoute()
const id = computed(() => Number(route.params.id))
const round = ref(0)
const { value: full, problem, load } = useRead(computed(() => ['exchange', id.value]), () => desk.exchange(id.value), {
  fresh: true,
  on: (event) => event.type === 'parcel' || event.type === 'taken' || event.type === 'link' || event.roundId === round.value,
})
watch(full, (now) => (round.value = now?.exchange.roundId ?? 0), { immediate: true })
const one = computed(() => full.value!.exchange)
const withLink = computed(() => full.value?.path !== '' && full.value?.linkId !== null)
const changing = ref(false)
const rights = reactive({ putIn: true, see: true, takeAway: true, asksFirst: false })

async function work(what: () => Promise<unknown>) {
  try {
    await what()
  } catch (error) {
    sayProblem(error)
  }
  await load()
}

/** Where the browser does not let the page copy, the link stands there to be copied by hand. */
const linkToCopy = ref('')
const copyLink = () => work(async () => {
  const { url } = await desk.basketLink(one.value.basketId)
  if (await copy(url)) say(t.copied)
  else linkToCopy.value = url
  await desk.handedOver(one.value.basketId)
})

const links = () => [full.value!.linkId!]
const write = () => work(async () => {
  await desk.writeToExchange(id.value)
  say(t.written)
})
const goOn = () => work(async () => {
  await desk.actOnLinks({ kind: 'GO_ON', ids: links() })
  say(t.wentOn)
})
const pause = () => work(async () => {
  await desk.actOnLinks({ kind: 'PAUSE', ids: links() })
  say(t.paused, { label: t.undo, run: () => void goOn() })
})
const renew = (days: number) => work(async () => {
  const { act } = await desk.actOnLinks({ kind: 'RENEW', ids: links(), days })
  say(t.renewed, { label: t.undo, run: () => void work(() => desk.undoLinkAct(act)) })
})

function change() {
  anew()
  changing.value = !changing.value
}
const { conflicts, asked, problem: rightsProblem, busy, submit: save, decide, anew } = useBoth(rights, {
  kept: () => {
    if (!full.value) return undefined
    const { putIn, see, takeAway, asksFirst } = one.value
    return { putIn, see, takeAway, asksFirst }
  },
  version: () => full.value?.version,
  reload: load,
  send: () => desk.changeExchange(id.value, { version: full.value!.version, ...rights }),
  done: () => {
    say(t.changed)
    changing.value = false
    return load()
  },
})
const rightsWords = computed(() => [one.value.putIn && t.putIn, one.value.see && t.see, one.value.takeAway && t.takeAway].filter(Boolean).join(', '))
const invitation = computed(() => {
  const at = full.value!.answeredAt
  return !one.value.asksFirst || full.value!.answer === 'NONE' || !at ? t.saidNothing : full.value!.answer === 'ACCEPTED' ? t.saidYes(dayAndTime(at)) : t.saidNo(dayAndTime(at))
})
</script>

<template>
  <div class="page">
    <header>
      <div>
        <p class="back"><RouterLink to="/exchanges">{{ t.back }}</RouterLink></p>
        <h1>{{ full ? one.title : t.title }}</h1>
        <p v-if="full" class="quiet"><RouterLink :to="{ name: 'contact', params: { id: one.contactId } }">{{ one.person }}</RouterLink>, {{ one.email }}; <strong :class="{ soon: one.state !== 'LIVE' }">{{ t.states[one.state] }}</strong></p>
      </div>
      <div v-if="full && may('HAND_OUT') && withLink" class="actions">
        <ElButton type="primary" @click="copyLink">{{ t.copyLink }}</ElButton>
        <ElButton v-if="one.state !== 'PAUSED' && one.state !== 'ENDED'" @click="write">{{ t.write }}</ElButton>
        <NamedMenu :label="t.renew" :names="OFFERED_DAYS.map((days) => t.renewFor(days))" @pick="(n) => void renew(OFFERED_DAYS[n]!)" />
        <ElButton v-if="one.state === 'PAUSED'" @click="goOn">{{ t.goOn }}</ElButton>
        <ElButton v-else-if="one.state !== 'ENDED'" @click="pause">{{ t.pause }}</ElButton>
      </div>
    </header>
    <FailureNote v-if="problem && !full" :problem="problem" @retry="load" />
    <LoadingPart v-if="!full && !problem" />
    <template v-if="full">
      <dl class="terms">
        <div><dt>{{ t.rightsTitle }}</dt><dd>{{ rightsWords }} <ElButton v-if="may('HAND_OUT')" type="primary" link size="small" :aria-expanded="changing" @click="change">{{ t.change }}</ElButton></dd></div>
        <div v-if="one.asksFirst"><dt>{{ t.invitation }}</dt><dd>{{ invitation }}</dd></div>
        <div><dt>{{ t.columns.until }}</dt><dd>{{ dayAndTime(one.endsAt) }}<template v-if="full.beginsAt">, {{ t.beginsWords(dayAndTime(full.beginsAt)) }}</template><template v-if="one.passcode">, {{ t.passcode }}</template> <RouterLink v-if="full.linkId !== null" class="small" :to="{ name: 'links', query: { round: one.roundId, link: full.linkId } }">{{ t.linkTerms }}</RouterLink></dd></div>
        <div><dt>{{ full.seenAt ? t.seen(dayAndTime(full.seenAt)) : t.notSeen }}</dt><dd><RouterLink :to="{ name: 'round', params: { id: one.roundId }, query: { basket: one.basketId } }">{{ t.board }}</RouterLink></dd></div>
      </dl>
      <p v-if="linkToCopy" class="mono">{{ linkToCopy }}</p>
      <BothVersions v-if="asked" :conflicts="conflicts" :names="{ putIn: t.rightPutIn, see: t.rightSee, takeAway: t.rightTakeAway, asksFirst: t.asksFirst }" @decide="decide" />
      <form v-if="changing" class="box" novalidate @submit.prevent="save">
        <RightsPart id="exchange-change" v-model="rights" :error="rightsProblem?.at('putIn') ?? ''" />
        <p v-if="rightsProblem && rightsProblem.errors.length === 0" class="error" role="alert">{{ rightsProblem.title }}. {{ rightsProblem.detail }}</p>
        <div class="actions"><ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ t.save }}</ElButton><ElButton size="small" @click="changing = false">{{ t.cancel }}</ElButton></div>
      </form>

      <div class="table">
        <FromThem :full="full" @changed="load" />
        <ForThem :full="full" @changed="load" />
      </div>

      <section class="story" :aria-label="t.story">
        <h2>{{ t.story }}</h2>
        <ol>
          <li v-for="done in full.story" :key="done.id"><span class="quiet">{{ dayAndTime(done.at) }}, {{ done.by || (done.what === 'ACCEPTED' || done.what === 'DECLINED' ? one.person : t.program) }}</span> {{ text.parcels.acts[done.what] }}<template v-if="done.said">: {{ done.said }}</template></li>
        </ol>
        <p class="quiet">{{ t.purgeWords(dayAndTime(full.purgeAt)) }}</p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.back,
.small {
  font-size: 15px;
}
.soon {
  color: var(--acorn-text);
}
.terms {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 36px;
  margin: 0 0 14px;
  padding: 10px 0;
  border-block: 1px solid var(--line);
}
dt {
  color: var(--slate);
  font-size: 15px;
}
dd {
  margin: 0;
}
.box {
  display: grid;
  gap: 10px;
  margin-bottom: 16px;
  padding: 12px 16px;
  border: 1px solid var(--line-strong);
  background: var(--card);
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
/* Two sides of one table: what came from over there, and what lies ready for them. */
.table {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  border: 1px solid var(--line);
  border-top: 4px solid var(--oak);
  background: var(--card);
}
.table > :deep(section) {
  padding: 12px 18px 18px;
}
.table > :deep(section + section) {
  border-inline-start: 3px double var(--oak);
}
h2 {
  margin: 20px 0 6px;
  font-size: 18px;
}
ol {
  max-height: 220px;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}
ol li {
  padding: 3px 0;
  overflow-wrap: anywhere;
}
</style>
