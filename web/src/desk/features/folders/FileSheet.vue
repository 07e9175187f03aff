<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import FilePreview from '../../../shared/FilePreview.vue'
import IdentityMark from '../../../shared/IdentityMark.vue'
import { sizeWords } from '../../../shared/size'
import { dayAndTime } from '../../../shared/time'
import LoadingPart from '../../LoadingPart.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'

/** One file beside the list: what is in it, where it comes from, every place it had. */
const props = defineProps<{ id: number; picked: boolean }>()
const emit = defineEmits<{ close: []; changed: []; pick: [] }>()
const t = text.folders
const live = { on: (event: { type: string }) => ['filing', 'basket'].includes(event.type) }
const { value: file, load } = useRead(computed(() => ['file', props.id]), () => desk.fileDetails(props.id), live)
const { value: journal } = useRead(computed(() => ['journal-of', props.id]), () => desk.journal({ file: props.id }), live)
const editing = ref<'name' | 'remove'>()
const typed = ref('')

function edit(what: 'name' | 'remove') {
  typed.value = what === 'name' ? (file.value?.name ?? '') : ''
  editing.value = editing.value === what ? undefined : what
}

const { problem, busy, submit } = useSubmit(async () => {
  if (editing.value === 'name') {
    await desk.renameFile(props.id, typed.value)
    say(t.renamed(typed.value))
    await load()
  } else {
    const name = file.value?.name ?? ''
    await desk.removeFile(props.id, typed.value)
    say(t.removed(name), { label: text.panel.undo, run: () => void desk.restoreFile(props.id).then(() => emit('changed'), sayProblem) })
    emit('close')
  }
  editing.value = undefined
  emit('changed')
})
</script>

<template>
  <aside class="sheet" :aria-label="t.details">
    <LoadingPart v-if="!file" />
    <template v-else>
      <header>
        <h2 class="mono">{{ file.name }}</h2>
        <ElButton size="small" @click="emit('close')">{{ t.close }}</ElButton>
      </header>
      <div class="actions">
        <a class="button small" :href="`/api/files/${id}`" download>{{ t.download }}</a>
        <ElButton size="small" :aria-expanded="editing === 'name'" @click="edit('name')">{{ t.rename }}</ElButton>
        <ElButton size="small" :aria-pressed="picked" @click="emit('pick')">{{ t.pick }}</ElButton>
        <ElButton size="small" :aria-expanded="editing === 'remove'" @click="edit('remove')">{{ t.remove }}</ElButton>
      </div>
      <form v-if="editing" novalidate @submit.prevent="submit" @keydown.esc.stop="editing = undefined">
        <FieldBox id="file-edit" v-slot="{ attrs }" :label="editing === 'name' ? t.newFileName : t.removeWhy" :error="problem?.at(editing === 'name' ? 'name' : 'reason') || (problem && problem.errors.length === 0 ? problem.detail : '')">
          <ElInput v-bind="attrs" v-model="typed" :class="{ mono: editing === 'name' }" spellcheck="false" />
        </FieldBox>
        <ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ editing === 'name' ? t.save : t.remove }}</ElButton>
      </form>
      <FilePreview :id="id" :key="id" :name="file.name" :media-type="file.mediaType" />
      <dl>
        <dt>{{ t.person }}</dt><dd><RouterLink :to="{ name: 'round', params: { id: file.roundId }, query: { basket: file.basketId } }">{{ file.person }}</RouterLink> <IdentityMark :identity="file.identity" /></dd>
        <dt>{{ t.item }}</dt><dd>{{ file.item }}</dd>
        <dt>{{ t.round }}</dt><dd>{{ file.round }}</dd>
        <dt>{{ t.original }}</dt><dd class="mono">{{ file.originalName }}</dd>
        <dt>{{ t.received }}</dt><dd>{{ dayAndTime(file.receivedAt) }}, {{ sizeWords(file.bytes) }}</dd>
        <dt>{{ t.receipt }}</dt><dd class="mono">{{ file.receipt }}</dd>
        <dt>{{ t.type }}</dt><dd class="mono">{{ file.mediaType }}</dd>
        <dt>{{ t.hash }}</dt><dd class="mono hash">{{ file.sha256 }}</dd>
        <template v-if="file.marks.length > 0"><dt>{{ t.marks }}</dt><dd>{{ file.marks.join(', ') }}</dd></template>
        <template v-if="file.copies.length > 0"><dt>{{ t.copies }}</dt><dd v-for="copy in file.copies" :key="copy" class="mono">{{ copy }}</dd></template>
      </dl>
      <h3>{{ t.places }}</h3>
      <ol class="places">
        <li v-for="line in journal?.lines" :key="line.id"><span class="mono">{{ line.to || text.journal.nowhere }}</span> <span class="quiet">{{ dayAndTime(line.at) }}. {{ line.why }}<template v-if="line.who">, {{ line.who }}</template></span></li>
      </ol>
      <RouterLink :to="{ name: 'journal', query: { file: id } }">{{ t.journal }}</RouterLink>
    </template>
  </aside>
</template>

<style scoped>
.sheet {
  padding: 12px 16px;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--card);
}
header {
  display: flex;
  gap: 10px;
  justify-content: space-between;
  align-items: start;
  margin: 0;
}
h2 {
  margin: 0;
  font-size: 16px;
  overflow-wrap: anywhere;
}
h3 {
  margin: 12px 0 4px;
  font-size: 16px;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 8px 0;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 12px;
  margin: 8px 0;
  font-size: 15px;
}
dt {
  color: var(--slate);
}
dd {
  grid-column: 2;
  margin: 0;
  overflow-wrap: anywhere;
}
.hash {
  font-size: 13px;
}
.places {
  margin: 0 0 8px;
  padding-left: 20px;
  font-size: 15px;
}
.places .mono {
  overflow-wrap: anywhere;
  font-size: 14px;
}
</style>
