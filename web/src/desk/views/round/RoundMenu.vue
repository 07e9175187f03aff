<script setup lang="ts">
import { useRouter } from 'vue-router'
import { desk, type BoardView } from '../../../api/desk'
import { text } from '../../../text/desk'
import MenuBox from '../../../ui/MenuBox.vue'
import { sayProblem } from '../../say'

/** What is done less often with a round. */
const props = defineProps<{ board: BoardView; files: number }>()
defineEmits<{ close: []; reopen: [] }>()
const t = text.round
const router = useRouter()

async function copyRound() {
  try {
    const draft = await desk.copyRound(props.board.id)
    await router.push({ name: 'sheet', params: { id: draft.head.id } })
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <button v-if="board.state === 'CLOSED'" class="button primary" type="button" @click="$emit('reopen')">{{ t.reopen }}</button>
  <MenuBox v-slot="{ close }" :label="t.more" class="round-menu">
    <div @click="close">
      <RouterLink v-if="board.state === 'GATHERING'" :to="{ name: 'change', params: { id: board.id } }">{{ t.change }}</RouterLink>
      <a :href="`/rehearsal/${board.id}`" target="_blank" rel="noopener">{{ t.rehearse }}</a>
      <button type="button" @click="copyRound">{{ t.copyRound }}</button>
      <RouterLink :to="{ name: 'again', params: { id: board.id } }">{{ t.comeAgain }}</RouterLink>
      <hr />
      <a v-if="files > 0" :href="`/api/files.zip?round=${board.id}`" download>{{ t.takeAll }}</a>
      <a :href="`/api/rounds/${board.id}/table.csv`" download>{{ t.tableCsv }}</a>
      <a :href="`/api/rounds/${board.id}/table.xlsx`" download>{{ t.tableXlsx }}</a>
      <RouterLink :to="{ name: 'status', params: { id: board.id } }">{{ t.statusSheet }}</RouterLink>
      <hr v-if="board.state === 'GATHERING'" />
      <button v-if="board.state === 'GATHERING'" type="button" @click="$emit('close')">{{ t.close }}</button>
    </div>
  </MenuBox>
</template>

<style scoped>
.round-menu a,
.round-menu button {
  display: block;
  width: 100%;
  padding: 7px 16px;
  border: 0;
  background: none;
  color: var(--bark);
  text-align: left;
  text-decoration: none;
  cursor: pointer;
}
.round-menu a:hover,
.round-menu button:hover {
  background: var(--tint);
}
hr {
  width: 100%;
  margin: 4px 0;
  border: 0;
  border-top: 1px solid var(--line);
}
</style>
