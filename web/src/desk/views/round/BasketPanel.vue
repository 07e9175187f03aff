<script setup lang="ts">
import { onMounted, ref, useTemplateRef } from 'vue'
import { text } from '../../../text/desk'
import { dayAndTime } from '../../../ui/time'
import WeaveTile from '../../../ui/WeaveTile.vue'
import FailureNote from '../../FailureNote.vue'
import ExtendForm from './ExtendForm.vue'
import PanelFileEntry from './PanelFileEntry.vue'
import { standingWords, tileWords } from './standing-words'
import { usePanel } from './use-panel'

const props = defineProps<{ basketId: number; touched: number; closed: boolean }>()
const emit = defineEmits<{ close: [] }>()
const t = text.panel
const { panel, problem, load, chosen, previewed, linkToCopy, zip, one, toggle, review, waive, excuse, extend, copyLink } = usePanel(props.basketId, () => props.touched)
const box = useTemplateRef('box')
const extending = ref(false)

onMounted(async () => {
  await load()
  box.value?.focus({ preventScroll: true })
})
</script>

<template>
  <aside ref="box" class="panel" tabindex="-1" :aria-label="panel ? t.label(panel.row.name) : ''" @keydown.esc="emit('close')">
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <template v-if="panel">
      <header>
        <div>
          <h2>{{ panel.row.name }}</h2>
          <p class="quiet">{{ panel.row.email }}</p>
          <p>{{ standingWords(panel.row).main }} <span class="quiet">{{ standingWords(panel.row).time }} {{ standingWords(panel.row).detail }}</span></p>
        </div>
        <button class="close" type="button" :aria-label="t.close" @click="emit('close')">✕</button>
      </header>
      <div class="actions">
        <button v-if="panel.hasLink" class="button small" type="button" @click="copyLink">{{ t.copyLink }}</button>
        <a v-if="chosen.size > 0" class="button small primary" :href="one ?? zip" download>{{ t.downloadChosen(chosen.size) }}</a>
        <a v-else-if="panel.files.length > 1" class="button small" :href="`/api/files.zip?basket=${panel.id}`" download>{{ t.downloadAll }}</a>
        <button v-if="!panel.row.waived" class="button small" type="button" :aria-expanded="extending" @click="extending = !extending">{{ t.extend }}</button>
        <button v-if="!panel.row.walkIn" class="button small" type="button" @click="excuse(!panel.row.waived)">{{ panel.row.waived ? t.unexcuseAll : t.excuseAll }}</button>
      </div>
      <ExtendForm v-if="extending" :date="panel.extension ?? ''" :reason="panel.extensionReason" :save="extend" @done="extending = false" />
      <p v-else-if="panel.extension" class="quiet">{{ t.extended(panel.extension) }}: {{ panel.extensionReason }}</p>
      <p v-if="linkToCopy" class="failure">{{ text.round.copyFailed }} <span class="mono">{{ linkToCopy }}</span></p>

      <section v-for="(item, n) in panel.items" :key="item.id">
        <h3>
          <WeaveTile :standing="panel.row.tiles[n]!.standing" :late="panel.row.tiles[n]!.late" :overdue="panel.row.tiles[n]!.overdue" :label="tileWords(item, panel.row.tiles[n]!)" />
          <span>{{ item.title }}</span>
          <button
            v-if="!panel.row.waived && (panel.row.tiles[n]!.standing === 'WAIVED' || panel.row.tiles[n]!.standing === 'WANTED' || panel.row.tiles[n]!.standing === 'PART')"
            class="button plain small"
            type="button"
            :aria-label="`${panel.row.tiles[n]!.standing === 'WAIVED' ? t.unexcuse : t.excuse}: ${item.title}`"
            @click="waive(item.id, panel.row.tiles[n]!.standing !== 'WAIVED')"
          >
            {{ panel.row.tiles[n]!.standing === 'WAIVED' ? t.unexcuse : t.excuse }}
          </button>
        </h3>
        <ul>
          <PanelFileEntry
            v-for="file in panel.files.filter((f) => f.itemId === item.id)"
            :key="file.id"
            :file="file"
            :chosen="chosen.has(file.id)"
            :previewed="previewed === file.id"
            @toggle="toggle(file.id)"
            @preview="previewed = previewed === file.id ? undefined : file.id"
            @review="(to, reason) => review(file, to, reason)"
          />
        </ul>
      </section>
      <p v-if="panel.files.length === 0" class="quiet">{{ t.noFiles }}</p>

      <section v-if="panel.story.length > 0">
        <h3>{{ t.story }}</h3>
        <ol class="story">
          <li v-for="(event, n) in panel.story" :key="n">
            <span class="quiet">{{ dayAndTime(event.at) }}</span> {{ t.events[event.what]!(event.count) }}<template v-if="event.detail">: {{ event.detail }}</template>
          </li>
        </ol>
      </section>
    </template>
    <p v-else-if="!problem" class="quiet">{{ text.loading }}</p>
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
