<script setup lang="ts">
import { watch } from 'vue'
import { desk } from '../api/desk'
import { text } from '../text/desk'
import OakMark from '../shared/OakMark.vue'
import { tellTimesIn, zoneWords } from '../shared/time'
import WeaveSprite from '../shared/WeaveSprite.vue'
import BellButton from './BellButton.vue'
import ConnectionNote from './ConnectionNote.vue'
import { libraryLocale } from './library'
import { goLive, stopLive, useConnection } from './live'
import { queries } from './queries'
import { router } from './router'
import SearchBox from './SearchBox.vue'
import { may, session, sessionEnded } from './use-session'

useConnection()
watch(() => session.value, (now) => now && tellTimesIn(now.zone), { immediate: true })
watch(() => session.value?.signedIn, (signedIn) => (signedIn ? goLive() : stopLive()), { immediate: true })

async function signOut() {
  await desk.signOut().catch(() => {})
  session.value = undefined
  sessionEnded.value = false
  queries.clear()
  await router.push('/sign-in')
}
</script>

<template>
  <ElConfigProvider :locale="libraryLocale" :button="{ autoInsertSpace: false }">
    <WeaveSprite />
    <span id="top" tabindex="-1" />
    <a class="skip" href="#page">{{ text.skip }}</a>
    <div v-if="session?.signedIn" class="bar">
      <RouterLink class="mark" to="/"><OakMark :size="34" /><span>{{ text.product }}</span></RouterLink>
      <nav :aria-label="text.tabs.label">
        <RouterLink to="/" :class="{ here: $route.name === 'today' }">{{ text.tabs.today }}</RouterLink>
        <RouterLink to="/rounds" :class="{ here: $route.path.startsWith('/rounds') }">{{ text.tabs.rounds }}</RouterLink>
        <RouterLink to="/contacts" :class="{ here: $route.path.startsWith('/contacts') }">{{ text.tabs.contacts }}</RouterLink>
        <RouterLink v-if="may('CHANGE')" to="/tray" :class="{ here: $route.name === 'tray' }">{{ text.tabs.tray }}</RouterLink>
        <RouterLink to="/folders" :class="{ here: $route.name === 'folders' }">{{ text.tabs.folders }}</RouterLink>
        <RouterLink to="/parcels" :class="{ here: $route.path.startsWith('/parcels') || $route.path.startsWith('/exchanges') }">{{ text.tabs.parcels }}</RouterLink>
        <RouterLink v-if="may('CHANGE')" to="/post" :class="{ here: $route.path.startsWith('/post') }">{{ text.tabs.post }}</RouterLink>
        <RouterLink v-if="may('CHANGE')" to="/links" :class="{ here: $route.name === 'links' }">{{ text.tabs.links }}</RouterLink>
        <RouterLink to="/setup" :class="{ here: $route.path.startsWith('/setup') }">{{ text.tabs.setup }}</RouterLink>
      </nav>
      <SearchBox />
      <BellButton />
      <span class="who quiet zone">{{ zoneWords(session.zone) }}</span>
      <ElTooltip :content="session.office"><span class="who">{{ session.name }}</span></ElTooltip>
      <ElButton type="primary" link size="small" @click="signOut">{{ text.signOut }}</ElButton>
    </div>
    <ConnectionNote v-if="session?.signedIn" />
    <main id="page" tabindex="-1">
      <RouterView :key="$route.name === 'sheet' || $route.name === 'compose' ? 'compose' : $route.path" />
    </main>
  </ElConfigProvider>
</template>

<style scoped>
.skip {
  position: absolute;
  left: -999px;
}
.skip:focus {
  position: fixed;
  left: 12px;
  top: 12px;
  z-index: 10;
  padding: 6px 12px;
  background: var(--card);
}
main,
#top {
  outline: none;
}
.bar {
  display: flex;
  align-items: center;
  gap: 8px 14px;
  padding: 8px 28px;
  border-bottom: 1px solid var(--line);
  background: var(--card);
}
.mark {
  display: flex;
  align-items: center;
  gap: 10px;
  color: var(--bark);
  font: 600 19px var(--heading);
  text-decoration: none;
  white-space: nowrap;
}
nav {
  display: flex;
  gap: 6px;
  flex: 1;
}
nav a {
  padding: 6px 10px;
  color: var(--bark);
  text-decoration: none;
}
nav a.here {
  /* A strand of the weave: over, under, over. */
  background: repeating-linear-gradient(90deg, var(--oak) 0 11px, transparent 11px 14px) bottom / 100% 4px no-repeat;
  font-weight: 600;
}
@media (max-width: 1400px) {
  /* Times say their zone where it is not the office's. */
  .bar .zone {
    display: none;
  }
}
@media (max-width: 1200px) {
  /* What can be done without goes first; then the tabs get a line of their own. */
  .bar {
    flex-wrap: wrap;
    padding: 8px 16px;
  }
  .bar .who {
    display: none;
  }
  nav {
    order: 9;
    flex: 1 0 100%;
    flex-wrap: wrap;
    gap: 2px;
  }
}
.who,
.el-button {
  white-space: nowrap;
}
.who {
  color: var(--slate);
}
</style>
