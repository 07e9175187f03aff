<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { desk, type Schemas } from '../../../api/desk'
import { dayAndTime } from '../../../shared/time'
import { text } from '../../../text/desk'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { sayProblem } from '../../say'
import { may } from '../../use-session'
import OutTabs from '../parcels/OutTabs.vue'

/** Every place in which papers go in both directions. */
const t = text.exchanges
const WAIT_MILLISECONDS = 300
const find = ref('')
const words = refDebounced(find, WAIT_MILLISECONDS)
const { value: page, problem, load } = useRead(computed(() => ['exchanges', words.value.trim()]), () => desk.exchanges(words.value.trim(), undefined), { on: (event) => event.type === 'parcel' || event.type === 'taken' || event.type === 'link' || event.roundId > 0 })
const earlier = ref<Schemas['ListedExchange'][]>([])
const moreThere = ref(false)
watch(page, (now) => {
  earlier.value = []
  moreThere.value = !!now?.more
})
const all = computed(() => [...(page.value?.exchanges ?? []), ...earlier.value])

async function more() {
  try {
    const next = await desk.exchanges(words.value.trim(), all.value.at(-1)?.id)
    earlier.value.push(...next.exchanges)
    moreThere.value = next.more
  } catch (error) {
    sayProblem(error)
  }
}

const rights = (one: Schemas['ListedExchange']) => [one.putIn && t.putIn, one.see && t.see, one.takeAway && t.takeAway].filter(Boolean).join(', ')
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ t.title }}</h1>
      <div v-if="may('HAND_OUT')" class="actions"><RouterLink class="el-button el-button--primary" to="/exchanges/new">{{ t.make }}</RouterLink></div>
    </header>
    <OutTabs />
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!page && !problem" />
    <template v-if="page">
      <ElInput v-if="all.length > 0 || words" v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      <EmptyPart v-if="all.length === 0" :words="words ? t.noneFound : t.none" />
      <table v-else class="plain">
        <thead>
          <tr>
            <th scope="col">{{ t.columns.title }}</th>
            <th scope="col">{{ t.columns.person }}</th>
            <th scope="col">{{ t.columns.came }}</th>
            <th scope="col">{{ t.columns.lying }}</th>
            <th scope="col">{{ t.columns.may }}</th>
            <th scope="col">{{ t.columns.until }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in all" :key="one.id">
            <td><RouterLink :to="{ name: 'exchange', params: { id: one.id } }">{{ one.title }}</RouterLink><div class="quiet">{{ t.states[one.state] }}<template v-if="one.passcode">, {{ t.passcode }}</template></div></td>
            <td>{{ one.person }}<div class="quiet">{{ one.email }}</div></td>
            <td class="count">{{ t.files(one.came) }}<strong v-if="one.toCheck > 0" class="soon">, {{ t.toCheck(one.toCheck) }}</strong><div v-if="one.lastCame" class="quiet">{{ dayAndTime(one.lastCame) }}</div></td>
            <td class="count">{{ t.files(one.lying) }}</td>
            <td>{{ rights(one) }}</td>
            <td class="count">{{ dayAndTime(one.endsAt) }}</td>
          </tr>
        </tbody>
      </table>
      <ElButton v-if="moreThere" class="more" @click="more">{{ t.more }}</ElButton>
    </template>
  </div>
</template>

<style scoped>
.find {
  width: 320px;
  margin-bottom: 14px;
}
.count {
  white-space: nowrap;
}
.soon {
  color: var(--acorn-text);
}
.more {
  margin-top: 12px;
}
</style>
