<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { desk, type FolderQuery, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import ChoiceField from '../../fields/ChoiceField.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import FileSheet from './FileSheet.vue'
import FolderTools from './FolderTools.vue'

/** A folder as it lies on the disk, with what is known of each file, and one file beside it. */
const t = text.folders
const PAGE = 100
const WAIT_MILLISECONDS = 300
type Row = Schemas['FolderRow']
type By = NonNullable<FolderQuery['by']>
const route = useRoute()
const router = useRouter()
const root = computed(() => Number(route.query.root ?? 1))
const path = computed(() => String(route.query.path ?? ''))
const shown = computed(() => (route.query.file ? Number(route.query.file) : undefined))
const by = computed(() => (route.query.by as By | undefined) ?? 'NAME')
const down = computed(() => route.query.down === 'yes')
const find = ref('')
const words = refDebounced(find, WAIT_MILLISECONDS)
const kind = ref<NonNullable<Row['kind']> | null>(null)
const page = ref(1)
const query = computed<FolderQuery>(() => ({ root: root.value, path: path.value, by: by.value, down: down.value, from: (page.value - 1) * PAGE, find: words.value.trim(), kind: kind.value ?? undefined }))
const { value: folder, problem, load } = useRead(computed(() => ['folder', query.value]), () => desk.folder(query.value), { on: (event) => ['filing', 'arrival', 'basket'].includes(event.type) })
const { value: roots } = useRead(['roots'], desk.roots, { on: (event) => event.type === 'filing' })
const picked = reactive(new Map<number, string>())
const kinds = computed(() => [{ value: null, label: t.anyKind }, ...Object.entries(text.filing.choices.KIND!).filter(([key]) => key !== 'NONE').map(([value, label]) => ({ value: value as NonNullable<Row['kind']> | null, label }))])
const crumbs = computed(() => path.value.split('/').filter(Boolean).map((name, n, all) => ({ name, path: all.slice(0, n + 1).join('/') })))
const searching = computed(() => words.value.trim() !== '' || kind.value !== null)
const columns: [By, string][] = [['NAME', t.name], ['BYTES', t.size], ['CHANGED', t.changed]]
watch([root, path, words, kind], () => (page.value = 1))

function go(change: Record<string, string | number | undefined>) {
  void router.push({ query: { ...route.query, ...change } })
}

function open(to: string, inRoot = root.value) {
  find.value = ''
  kind.value = null
  go({ root: inRoot, path: to || undefined, file: undefined })
}

function sort(column: By) {
  go({ by: column, down: by.value === column && !down.value ? 'yes' : undefined })
}

/** Begins a parcel with what was chosen; nothing is copied. */
async function handOut() {
  try {
    const { id } = await desk.beginParcel()
    await desk.pickFiles(id, [...picked.keys()])
    await router.push({ name: 'parcel', params: { id } })
  } catch (error) {
    sayProblem(error)
  }
}

function pick(row: Row, on: boolean) {
  if (row.fileId === null || row.copy) return
  if (on) picked.set(row.fileId, row.name)
  else picked.delete(row.fileId)
}

async function moveHere() {
  try {
    await desk.moveFiles([...picked.keys()], root.value, path.value)
    picked.clear()
    say(t.moved)
    await load()
  } catch (error) {
    sayProblem(error)
  }
}
const inner = (row: Row) => (path.value ? `${path.value}/${row.name}` : row.name)
const pickable = computed(() => folder.value?.rows.filter((row) => row.fileId !== null && !row.copy) ?? [])
</script>

<template>
  <div>
    <nav class="crumbs" :aria-label="t.crumbs">
      <template v-for="one in roots" :key="one.id">
        <ElButton v-if="one.id === root || !path" type="primary" link :aria-current="one.id === root && !path ? 'page' : undefined" :class="{ there: one.id === root }" @click="open('', one.id)">{{ one.name }}</ElButton>
      </template>
      <template v-for="(one, n) in crumbs" :key="one.path"><span aria-hidden="true">/</span><ElButton type="primary" link :aria-current="n === crumbs.length - 1 ? 'page' : undefined" @click="open(one.path)">{{ one.name }}</ElButton></template>
    </nav>
    <div class="narrow">
      <ElInput v-model="find" class="find" type="search" :placeholder="t.find" :aria-label="t.find" />
      <ChoiceField v-model="kind" class="kind" :choices="kinds" :label="t.kind" />
      <FolderTools v-if="!searching && folder" :root="root" :path="path" :empty="folder.total === 0" @changed="load" @go="(to) => open(to)" />
    </div>
    <div v-if="picked.size > 0" class="picked" role="status">
      <strong>{{ t.chosen(picked.size) }}</strong> <span class="quiet">{{ t.moveHint }}</span>
      <ElButton size="small" :disabled="searching" @click="moveHere">{{ t.moveChosen }}</ElButton>
      <a class="button small" :href="`/api/files.zip?${[...picked.keys()].map((id) => `id=${id}`).join('&')}`" download>{{ t.take }}</a>
      <ElButton size="small" @click="handOut">{{ text.parcels.handOutFiles }}</ElButton>
      <ElButton size="small" @click="picked.clear()">{{ t.clear }}</ElButton>
    </div>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!folder && !problem" />
    <div v-if="folder" class="split" :class="{ alone: !shown }">
      <div class="list">
        <p class="quiet">{{ searching ? t.found(folder.files) : [folder.folders > 0 ? t.folders(folder.folders) : '', t.files(folder.files)].filter(Boolean).join(', ') }}</p>
        <EmptyPart v-if="folder.rows.length === 0" :words="searching ? t.noneFound : t.empty" />
        <table v-else class="plain">
          <thead>
            <tr>
              <th scope="col" class="tick"><ElCheckbox :model-value="pickable.length > 0 && pickable.every((row) => picked.has(row.fileId!))" :disabled="pickable.length === 0" :aria-label="t.choosePage" @change="(on) => pickable.forEach((row) => pick(row, !!on))" /></th>
              <th v-for="[column, label] in columns" :key="column" scope="col" :class="{ number: column === 'BYTES' }" :aria-sort="!searching && by === column ? (down ? 'descending' : 'ascending') : undefined">
                <ElButton v-if="!searching" type="primary" link size="small" @click="sort(column)">{{ label }}<span v-if="by === column" aria-hidden="true">{{ down ? ' ↓' : ' ↑' }}</span></ElButton><template v-else>{{ label }}</template>
              </th>
              <th v-if="!shown" scope="col">{{ t.whose }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in folder.rows" :key="row.path + '/' + row.name" :class="{ here: row.fileId !== null && row.fileId === shown }">
              <td class="tick"><ElCheckbox v-if="row.fileId !== null && !row.copy" :model-value="picked.has(row.fileId)" :aria-label="t.choose(row.name)" @change="(on) => pick(row, !!on)" /></td>
              <td>
                <ElButton v-if="row.folder" class="name" type="primary" link @click="open(inner(row))"><span aria-hidden="true" class="leaf">▸</span>{{ row.name }}/</ElButton>
                <ElButton v-else-if="row.fileId !== null" class="name mono" type="primary" link :aria-pressed="row.fileId === shown" @click="go({ file: row.fileId })">{{ row.name }}</ElButton>
                <span v-else class="mono">{{ row.name }}</span>
                <p v-if="row.path" class="quiet">{{ t.in(row.path) }}</p>
                <span v-if="row.copy" class="quiet">{{ t.copy }}</span>
                <ElTooltip v-if="!row.folder && row.fileId === null" :content="t.unknownWhy"><RouterLink class="unknown" :to="{ query: { show: 'hand' } }">{{ t.unknown }}</RouterLink></ElTooltip>
                <span v-for="mark in row.marks" :key="mark" class="mark">{{ mark }}</span>
              </td>
              <td class="number">{{ row.folder ? '' : sizeWords(row.bytes) }}</td>
              <td class="when">{{ dayAndTime(row.changedAt) }}</td>
              <td v-if="!shown">{{ row.person }}<p class="quiet">{{ row.item }}</p></td>
            </tr>
          </tbody>
        </table>
        <ElPagination v-if="folder.total > PAGE" v-model:current-page="page" class="pages" layout="prev, pager, next" :page-size="PAGE" :total="folder.total" />
      </div>
      <FileSheet v-if="shown" :id="shown" :key="shown" :picked="picked.has(shown)" @close="go({ file: undefined })" @changed="load" @pick="picked.has(shown!) ? picked.delete(shown!) : picked.set(shown!, '')" />
    </div>
  </div>
</template>

<style scoped>
.crumbs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
  margin: 6px 0;
}
.crumbs .there {
  font-weight: 600;
}
.narrow {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: start;
  margin-bottom: 8px;
}
.find {
  width: 260px;
}
.kind {
  width: 160px;
}
.picked {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding: 8px 12px;
  border-left: 5px solid var(--oak);
  background: var(--card);
}
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(360px, 460px);
  gap: 20px;
  align-items: start;
}
.split.alone {
  grid-template-columns: 1fr;
}
.tick {
  width: 36px;
}
.number {
  text-align: right;
  white-space: nowrap;
}
.when {
  white-space: nowrap;
}
html .name {
  justify-content: start;
  text-align: left;
  line-height: 1.35;
  white-space: normal;
  overflow-wrap: anywhere;
}
.leaf {
  margin-right: 6px;
}
.here td {
  background: var(--leaf-tint);
}
.mark {
  margin-left: 6px;
  padding: 0 6px;
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  font-size: 14px;
}
.unknown {
  margin-left: 8px;
  color: var(--rowan);
}
td p {
  margin: 0;
}
</style>
