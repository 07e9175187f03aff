<script setup lang="ts">
import { ref } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say, sayProblem } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'
import RefilingNote from '../filing/RefilingNote.vue'

/** What can be done with the folder that is shown: a new one in it, another name, taking it away, removing it while it is empty. */
const props = defineProps<{ root: number; path: string; empty: boolean }>()
const emit = defineEmits<{ changed: []; go: [path: string] }>()
const t = text.folders
const editing = ref<'new' | 'name'>()
const typed = ref('')
const batch = ref<number>()
const above = () => props.path.split('/').slice(0, -1).join('/')

function edit(what: 'new' | 'name') {
  typed.value = what === 'name' ? (props.path.split('/').pop() ?? '') : ''
  editing.value = editing.value === what ? undefined : what
}

const { problem, busy, submit } = useSubmit(async () => {
  if (editing.value === 'new') {
    await desk.makeFolder(props.root, props.path, typed.value)
    say(t.made(typed.value))
    emit('changed')
  } else {
    batch.value = (await desk.moveFolder({ root: props.root, path: props.path, toRoot: props.root, toPath: above(), name: typed.value })).id
    emit('go', above())
  }
  editing.value = undefined
})

async function remove() {
  try {
    await desk.removeFolder(props.root, props.path)
    say(t.folderGone(props.path.split('/').pop()!))
    emit('go', above())
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div>
    <div class="tools">
      <ElButton size="small" :aria-expanded="editing === 'new'" @click="edit('new')">{{ t.newFolder }}</ElButton>
      <template v-if="path">
        <ElButton size="small" :aria-expanded="editing === 'name'" @click="edit('name')">{{ t.renameFolder }}</ElButton>
        <a v-if="!empty" class="button small" :href="`/api/files.zip?root=${root}&path=${encodeURIComponent(path)}`" download>{{ t.takeFolder }}</a>
        <ElButton v-else size="small" @click="remove">{{ t.removeFolder }}</ElButton>
      </template>
    </div>
    <form v-if="editing" novalidate @submit.prevent="submit" @keydown.esc.stop="editing = undefined">
      <FieldBox id="folder-edit" v-slot="{ attrs }" :label="editing === 'new' ? t.newName : t.newFileName" :error="problem?.at('name') || (problem && problem.errors.length === 0 ? problem.detail : '')">
        <ElInput v-bind="attrs" v-model="typed" class="mono" spellcheck="false" />
      </FieldBox>
      <ElButton type="primary" size="small" native-type="submit" :loading="busy">{{ editing === 'new' ? t.make : t.save }}</ElButton>
    </form>
    <RefilingNote v-if="batch" :id="batch" :key="batch" @begun="(id) => (batch = id)" />
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
form {
  display: flex;
  gap: 10px;
  align-items: end;
  max-width: 520px;
}
form .field {
  flex: 1;
}
</style>
