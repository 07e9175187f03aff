<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk } from '../api/desk'
import { text } from '../text/desk'
import IdentityMark from '../shared/IdentityMark.vue'
import PlainName from '../shared/PlainName.vue'
import { dayAndTime } from '../shared/time'
import { useRead } from './queries'
import { sayProblem } from './say'

/** What came since this coordinator last looked, as it comes; nothing when there is nothing. */
const t = text.bell
const { value: rings, load } = useRead(['bell'], desk.bell, { on: (event) => ['arrival', 'letter', 'held', 'filing', 'parcel', 'taken'].includes(event.type) })
const count = computed(() => (rings.value ? rings.value.files + rings.value.mails + rings.value.taken : 0))
const MOST = 99

async function seen() {
  try {
    await desk.bellSeen(rings.value!)
  } catch (error) {
    sayProblem(error)
  }
  await load()
}

const open = ref(false)
const near = ref(false)
</script>

<template>
  <ElPopover v-model:visible="open" trigger="click" placement="bottom-end" width="400" :teleported="false" :show-arrow="false">
    <template #reference>
      <ElButton class="bell" link :aria-expanded="open" :aria-label="count > 0 ? t.some(count) : t.label" @pointerenter="near = true" @focus="near = true">
      <svg viewBox="0 0 24 24" width="22" height="22" aria-hidden="true"><path d="M12 3a6 6 0 0 0-6 6v4l-2 3h16l-2-3V9a6 6 0 0 0-6-6Zm-2 15a2 2 0 0 0 4 0" fill="none" stroke="currentColor" stroke-width="1.8" stroke-linejoin="round" /></svg>
      <span v-if="count > 0" class="count" aria-hidden="true">{{ count > MOST ? `${MOST}+` : count }}</span>
      </ElButton>
    </template>
    <!-- Nobody finds a name in a box that nobody went to. -->
    <div v-if="near" class="rings">
      <p v-if="count === 0" class="quiet">{{ t.nothing }}</p>
      <template v-else>
        <h2>{{ t.title }}</h2>
        <ul>
          <li v-for="one in rings!.messages" :key="`m${one.id}`">
            <RouterLink :to="{ path: '/post/inward', query: { message: one.id } }" @click="open = false"><PlainName :name="one.from" /></RouterLink> <span class="quiet">{{ dayAndTime(one.at) }}</span>
            <p class="quiet">{{ t.wrote(one.subject || text.inward.noSubject) }}</p>
          </li>
          <li v-for="one in rings!.sendings" :key="one.fileId">
            <RouterLink :to="{ name: 'round', params: { id: one.roundId }, query: { basket: one.basketId } }" @click="open = false">{{ one.person }}</RouterLink> <IdentityMark :identity="one.identity" /> <span class="quiet">{{ dayAndTime(one.at) }}</span>
            <p class="quiet">{{ t.files(one.files) }}, {{ one.round }}</p>
          </li>
          <li v-for="one in rings!.takings" :key="`t${one.linkId}`">
            <RouterLink :to="{ name: one.exchange ? 'exchange' : 'parcel', params: { id: one.parcelId } }" @click="open = false">{{ one.person || text.parcels.anybody }}</RouterLink> <span class="quiet">{{ dayAndTime(one.at) }}</span>
            <p class="quiet">{{ t.took(one.files, one.parcel) }}</p>
          </li>
        </ul>
        <ElButton size="small" @click="seen">{{ t.seen }}</ElButton>
      </template>
    </div>
  </ElPopover>
</template>

<style scoped>
.bell {
  color: var(--bark);
}
.count {
  min-width: 20px;
  margin-left: 2px;
  padding: 0 5px;
  border-radius: 10px;
  background: var(--oak);
  color: #fff;
  font-size: 14px;
  font-weight: 600;
  line-height: 20px;
  text-align: center;
}
.rings {
  max-height: 60vh;
  overflow: auto;
}
h2 {
  font-size: 17px;
}
ul {
  margin: 0 0 10px;
  padding: 0;
  list-style: none;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
</style>
