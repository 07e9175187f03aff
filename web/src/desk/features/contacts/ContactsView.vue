<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { limits } from '../../../api/limits'
import { desk, type Contact } from '../../../api/desk'
import { text } from '../../../text/desk'
import EmptyPart from '../../EmptyPart.vue'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import SuggestField from '../../fields/SuggestField.vue'
import { say, sayProblem } from '../../say'
import { queries, useRead } from '../../queries'
import { may } from '../../use-session'

const t = text.contacts
const route = useRoute()
const router = useRouter()
const WAIT_MILLISECONDS = 200
const find = ref('')
const group = computed({ get: () => String(route.query.group ?? ''), set: (name) => void router.replace({ query: name ? { group: name } : {} }) })
const provisional = computed(() => route.query.provisional === '1')
const chosen = reactive(new Set<number>())
const into = ref('')
const further = ref<Contact[]>([])
const words = refDebounced(find, WAIT_MILLISECONDS)
const { value: list, problem } = useRead(
  computed(() => ['contacts', words.value, group.value, provisional.value]),
  () => desk.contacts(words.value, group.value, provisional.value, 0),
  { on: (event) => event.type === 'contact' },
)
watch(list, () => (further.value = []))
const load = () => queries.invalidateQueries({ queryKey: ['contacts'] })
const contacts = computed(() => [...(list.value?.contacts ?? []), ...further.value])

async function more() {
  try {
    further.value.push(...(await desk.contacts(words.value, group.value, provisional.value, contacts.value.length)).contacts)
  } catch (error) {
    sayProblem(error)
  }
}

watch([group, provisional], () => chosen.clear())

function toggle(id: number) {
  if (!chosen.delete(id)) chosen.add(id)
}

function groupsLike(typed: string, show: (groups: { value: string }[]) => void) {
  show((list.value?.groups ?? []).filter((one) => one.name.toLowerCase().includes(typed.trim().toLowerCase())).map((one) => ({ value: one.name })))
}

async function regroup(name: string, within: boolean) {
  const ids = [...chosen]
  try {
    await desk.regroup(name, ids, within)
    chosen.clear()
    into.value = ''
    await load()
    say(within ? t.regrouped(ids.length, name) : t.ungrouped(ids.length, name), { label: text.panel.undo, run: () => void desk.regroup(name, ids, !within).then(load, sayProblem) })
  } catch (error) {
    sayProblem(error)
  }
}

async function removeGroup(name: string) {
  try {
    await desk.removeGroup(name)
    group.value = ''
    await load()
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ t.title }}</h1>
      <div class="actions">
        <RouterLink v-if="may('CHANGE')" class="button" to="/contacts/twice">{{ t.twice }}</RouterLink>
        <a class="button" :href="`/api/contacts.csv?group=${encodeURIComponent(group)}`" download>{{ t.exportCsv }}</a>
        <a class="button" :href="`/api/contacts.vcf?group=${encodeURIComponent(group)}`" download>{{ t.exportVcard }}</a>
        <RouterLink v-if="may('CHANGE')" class="button" to="/contacts/import">{{ t.import }}</RouterLink>
        <RouterLink v-if="may('CHANGE')" class="button primary" to="/contacts/new">{{ t.add }}</RouterLink>
      </div>
    </header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!list && !problem" />
    <template v-if="list">
      <div class="narrow">
        <div class="chips" role="group" :aria-label="t.groups">
          <ElButton :aria-pressed="!group && !provisional" @click="group = ''">{{ t.everybody }}</ElButton>
          <ElButton v-for="one in list.groups" :key="one.name" :aria-pressed="group === one.name" @click="group = one.name">{{ one.name }} <span>{{ one.size }}</span></ElButton>
          <ElButton v-if="list.provisional > 0 || provisional" :aria-pressed="provisional" @click="router.replace({ query: { provisional: '1' } })">{{ t.provisional }} <span>{{ list.provisional }}</span></ElButton>
        </div>
        <ElInput v-model="find" class="find" type="search" :aria-label="t.find" :placeholder="t.find" />
      </div>
      <div v-if="chosen.size > 0" class="bulk">
        <strong>{{ text.acts.chosen(chosen.size) }}</strong>
        <form @submit.prevent="into.trim() && regroup(into.trim(), true)">
          <SuggestField v-model="into" :maxlength="limits.Regroup.group.longest" :aria-label="t.into" :placeholder="t.group" :fetch-suggestions="groupsLike" />
          <ElButton size="small" native-type="submit" :disabled="!into.trim()">{{ t.into }}</ElButton>
        </form>
        <ElButton v-if="group" size="small" @click="regroup(group, false)">{{ t.outOf }}</ElButton>
        <ElButton type="primary" link size="small" @click="chosen.clear()">{{ text.acts.clear }}</ElButton>
      </div>
      <p class="quiet" role="status">
        {{ t.total(list.total) }}
        <ElButton v-if="may('CHANGE') && group && list.total === 0" type="primary" link size="small" @click="removeGroup(group)">{{ t.removeGroup(group) }}</ElButton>
      </p>
      <EmptyPart v-if="list.total === 0" :words="find || group || provisional ? t.noneFits : t.empty" />
      <table v-else class="plain">
        <thead>
          <tr>
            <th scope="col" class="tick"><span class="hidden-text">{{ text.acts.clear }}</span></th>
            <th scope="col">{{ t.name }}</th>
            <th scope="col">{{ t.email }}</th>
            <th scope="col">{{ t.organisation }}</th>
            <th scope="col">{{ t.groups }}</th>
            <th scope="col">{{ t.reference }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="contact in contacts" :key="contact.id">
            <td class="tick"><ElCheckbox :model-value="chosen.has(contact.id)" :aria-label="text.acts.choose(contact.name)" @change="toggle(contact.id)" /></td>
            <td>
              <RouterLink :to="{ name: 'contact', params: { id: contact.id } }">{{ contact.name }}</RouterLink>
              <span v-if="contact.provisional" class="mark">{{ t.provisionalNote }}</span>
            </td>
            <td class="mail">{{ contact.email }}</td>
            <td>{{ contact.organisation }}</td>
            <td>{{ contact.groups.join(', ') }}</td>
            <td>{{ contact.reference }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="contacts.length < list.total" class="more"><ElButton @click="more">{{ t.more }}</ElButton></p>
    </template>
  </div>
</template>

<style scoped>
.actions,
.chips,
.bulk,
.bulk form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.narrow {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 10px 20px;
  margin-bottom: 10px;
}
.find {
  width: 240px;
}
.bulk {
  margin-bottom: 10px;
  padding: 8px 14px;
  border: 1px solid var(--oak);
  background: var(--card);
}
.bulk .suggest-field {
  width: 220px;
}
td a {
  font-weight: 600;
}
.mail {
  overflow-wrap: anywhere;
}
.mark {
  margin-left: 8px;
  padding: 0 6px;
  border: 1px solid var(--line-strong);
  border-radius: var(--corner);
  color: var(--acorn-text);
  font-size: 14px;
}
.tick {
  width: 40px;
}
.more {
  margin-top: 12px;
}
</style>
