<script setup lang="ts">
import { useRouter } from 'vue-router'
import { desk, type BoardView } from '../../../api/desk'
import { text } from '../../../text/desk'
import { copy } from '../../copy'
import { say, sayProblem } from '../../say'
import { may } from '../../use-session'

/** What is done less often with a round. */
const props = defineProps<{ board: BoardView; files: number }>()
const emit = defineEmits<{ close: []; reopen: []; history: []; sharing: []; links: [words: string] }>()
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

/** Everybody's link as a table that spreadsheets take: name, address, link. */
async function copyLinks() {
  try {
    const all = await desk.links(props.board.id)
    if (all.length === 0) return say(t.noLinks)
    const table = all.map((one) => [one.name, one.email, one.url].map((cell) => cell.replace(/[\t\r\n]+/g, ' ')).join('\t')).join('\n')
    if (await copy(table)) say(t.linksCopied(all.length))
    else emit('links', table)
  } catch (error) {
    sayProblem(error)
  }
}

/** The keyboard chooses the line; the link in it is what a mouse would have met. */
function follow(event: Event) {
  const line = event.currentTarget as HTMLElement
  if (!(event.target as HTMLElement).closest('a')) line.querySelector('a')?.click()
}
</script>

<template>
  <ElButton v-if="board.state === 'CLOSED' && may('CHANGE')" type="primary" @click="emit('reopen')">{{ t.reopen }}</ElButton>
  <ElDropdown trigger="click" placement="bottom-end" :teleported="false" class="round-menu">
    <ElButton>{{ t.more }}</ElButton>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem v-if="board.state === 'GATHERING' && may('CHANGE')" @click="follow"><RouterLink tabindex="-1" :to="{ name: 'change', params: { id: board.id } }">{{ t.change }}</RouterLink></ElDropdownItem>
        <ElDropdownItem v-if="may('CHANGE')" @click="follow"><a tabindex="-1" :href="`/rehearsal/${board.id}`" target="_blank" rel="noopener">{{ t.rehearse }}</a></ElDropdownItem>
        <ElDropdownItem v-if="may('CHANGE')" @click="copyRound">{{ t.copyRound }}</ElDropdownItem>
        <ElDropdownItem v-if="may('CHANGE')" @click="follow"><RouterLink tabindex="-1" :to="{ name: 'again', params: { id: board.id } }">{{ t.comeAgain }}</RouterLink></ElDropdownItem>
        <ElDropdownItem @click="follow"><RouterLink tabindex="-1" :to="{ name: 'round-filing', params: { id: board.id } }">{{ text.filing.title }}</RouterLink></ElDropdownItem>
        <ElDropdownItem @click="emit('sharing')">{{ text.team.sharing }}</ElDropdownItem>
        <ElDropdownItem @click="emit('history')">{{ t.history }}</ElDropdownItem>
        <ElDropdownItem divided @click="follow"><RouterLink tabindex="-1" :to="{ name: 'links', query: { round: board.id } }">{{ t.toLinks }}</RouterLink></ElDropdownItem>
        <ElDropdownItem v-if="may('CHANGE')" @click="copyLinks">{{ t.copyLinks }}</ElDropdownItem>
        <ElDropdownItem v-if="board.state !== 'GATHERING' && files > 0" @click="follow"><RouterLink tabindex="-1" :to="{ name: 'set', params: { id: board.id } }">{{ text.handover.menu }}</RouterLink></ElDropdownItem>
        <ElDropdownItem v-if="files > 0" @click="follow"><a tabindex="-1" :href="`/api/files.zip?round=${board.id}`" download>{{ t.takeAll }}</a></ElDropdownItem>
        <ElDropdownItem @click="follow"><a tabindex="-1" :href="`/api/rounds/${board.id}/table.csv`" download>{{ t.tableCsv }}</a></ElDropdownItem>
        <ElDropdownItem @click="follow"><a tabindex="-1" :href="`/api/rounds/${board.id}/table.xlsx`" download>{{ t.tableXlsx }}</a></ElDropdownItem>
        <ElDropdownItem v-if="files > 0" @click="follow"><a tabindex="-1" :href="`/api/rounds/${board.id}/files.csv`" download>{{ t.filesCsv }}</a></ElDropdownItem>
        <ElDropdownItem v-if="files > 0" @click="follow"><a tabindex="-1" :href="`/api/rounds/${board.id}/files.xlsx`" download>{{ t.filesXlsx }}</a></ElDropdownItem>
        <ElDropdownItem @click="follow"><RouterLink tabindex="-1" :to="{ name: 'status', params: { id: board.id } }">{{ t.statusSheet }}</RouterLink></ElDropdownItem>
        <ElDropdownItem v-if="board.state === 'GATHERING' && may('CHANGE')" divided @click="emit('close')">{{ t.close }}</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>
