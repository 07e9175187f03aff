<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { desk, type Role, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { dayAndTime, shortDay } from '../../../shared/time'
import AskOnce from '../../AskOnce.vue'
import { copy } from '../../copy'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import ChoiceField from '../../fields/ChoiceField.vue'
import NamedMenu from '../../fields/NamedMenu.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import { session } from '../../use-session'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'
import LeaveDialog from './LeaveDialog.vue'
import SpacePart from './SpacePart.vue'
import TeamSettingsPart from './TeamSettingsPart.vue'

type Member = Schemas['TeamMember']

/** Who belongs to the office, and as what. */
const t = text.team
const { value: team, problem, load } = useRead(['team'], desk.team, { on: (event) => event.type === 'team' || event.type === 'round' })
const ROLES: Role[] = ['COORDINATOR', 'READER', 'ADMINISTRATOR']
const roleChoices = ROLES.map((role) => ({ value: role, label: t.roles[role] }))
const form = reactive({ name: '', email: '', role: 'COORDINATOR' as Role })
const link = ref<{ words: string; url: string }>()
const leaving = ref<Member>()
const here = computed(() => team.value?.members.filter((one) => !one.member.endedAt) ?? [])
const gone = computed(() => team.value?.members.filter((one) => one.member.endedAt) ?? [])

const { problem: refused, busy, submit } = useSubmit(async () => {
  tellLink(await desk.invite(form.name, form.email, form.role))
  Object.assign(form, { name: '', email: '' })
  await load()
})

function tellLink(made: Schemas['Invited']) {
  link.value = { words: made.invitation.trouble ? t.notWritten(made.invitation.name) : t.invited(made.invitation.name), url: made.link }
}

async function tryTo(work: () => Promise<unknown>, words?: string) {
  try {
    await work()
    if (words) say(words)
  } catch (error) {
    sayProblem(error)
  }
  await load()
}

const setRole = (one: Member, role: Role) => tryTo(() => desk.setRole(one.member.id, one.member.version, role), t.roleChanged(one.member.name, t.roles[role].toLowerCase()))
const again = (one: Schemas['Invitation']) => tryTo(async () => tellLink(await desk.inviteAgain(one.id)))

const acts = (one: Member) => [t.leave, t.resetLink, ...(one.member.secondFactor ? [t.endFactor] : [])]

function act(one: Member, n: number) {
  if (n === 0) leaving.value = one
  if (n === 1) void tryTo(async () => (link.value = { words: t.resetMade(one.member.name), url: (await desk.resetLink(one.member.id)).link }))
  if (n === 2) void tryTo(() => desk.endFactorOf(one.member.id), t.factorEnded(one.member.name))
}

async function hasLeft(name: string) {
  leaving.value = undefined
  say(t.hasLeft(name))
  await load()
}
</script>

<template>
  <div class="page">
    <header>
      <div><h1>{{ t.title }}</h1><p class="quiet">{{ t.intro }}</p></div>
      <RouterLink class="button" :to="{ name: 'audit' }">{{ text.audit.open }}</RouterLink>
    </header>
    <FailureNote v-if="problem" :problem="problem" @retry="load" />
    <LoadingPart v-if="!team && !problem" />
    <template v-if="team">
      <table class="plain">
        <thead>
          <tr><th scope="col">{{ t.columns.name }}</th><th scope="col">{{ t.columns.role }}</th><th scope="col">{{ t.columns.owns }}</th><th scope="col">{{ t.columns.links }}</th><th scope="col">{{ t.columns.signIn }}</th><th scope="col"><span class="hidden-text">{{ t.columns.actions }}</span></th></tr>
        </thead>
        <tbody>
          <tr v-for="one in here" :key="one.member.id">
            <td>{{ one.member.name }} <span v-if="one.member.id === session?.account" class="quiet">({{ t.you }})</span><p class="quiet">{{ one.member.email }}</p></td>
            <td class="role"><ChoiceField :model-value="one.member.role" :label="t.changeRole(one.member.name)" :choices="roleChoices" @update:model-value="(role: Role) => setRole(one, role)" /></td>
            <td>{{ one.rounds ? t.rounds(one.rounds) : '–' }}</td>
            <td>{{ one.liveLinks || '–' }}</td>
            <td>{{ one.member.secondFactor ? t.factorOn : t.factorOff }}</td>
            <td class="acts"><NamedMenu v-if="one.member.id !== session?.account" small :label="t.more(one.member.name)" :names="acts(one)" @pick="(n) => act(one, n)" /></td>
          </tr>
          <tr v-for="one in gone" :key="one.member.id" class="gone">
            <td>{{ one.member.name }}<p class="quiet">{{ one.member.email }}</p></td>
            <td>{{ t.roles[one.member.role] }}</td>
            <td colspan="3" class="quiet">{{ t.left(shortDay(one.member.endedAt!)) }}</td>
            <td class="acts"><ElButton size="small" @click="tryTo(() => desk.letBack(one.member.id, one.member.version), t.isBack(one.member.name))">{{ t.back }}</ElButton></td>
          </tr>
        </tbody>
      </table>
      <p v-if="link" class="made" role="status">{{ link.words }}<br /><span class="mono">{{ link.url }}</span> <ElButton size="small" @click="copy(link.url).then(() => say(text.round.copied))">{{ t.copyLink }}</ElButton></p>
      <section v-if="team.invitations.length > 0" aria-labelledby="invited">
        <h2 id="invited">{{ t.invitations }}</h2>
        <ul>
          <li v-for="one in team.invitations" :key="one.id">
            <strong>{{ one.name }}</strong> <span class="quiet">{{ one.email }}, {{ t.roles[one.role] }}, {{ one.endsAt > team.now ? t.until(dayAndTime(one.endsAt)) : t.ended }}</span>
            <ElButton size="small" :aria-label="`${t.inviteAgain}: ${one.name}`" @click="again(one)">{{ t.inviteAgain }}</ElButton>
            <AskOnce small :label="t.withdraw" :name="`${t.withdraw}: ${one.name}`" :question="t.withdrawAsk(one.name)" @sure="tryTo(() => desk.withdrawInvitation(one.id), t.withdrawn(one.name))" />
            <p v-if="one.trouble" class="error">{{ t.trouble(one.trouble) }}</p>
          </li>
        </ul>
      </section>
      <section aria-labelledby="invite">
        <h2 id="invite">{{ t.invite }}</h2>
        <form class="invite" novalidate @submit.prevent="submit">
          <FieldBox id="invite-name" v-slot="{ attrs }" :label="t.inviteName" :error="refused?.at('name')"><ElInput v-bind="attrs" v-model="form.name" autocomplete="off" /></FieldBox>
          <FieldBox id="invite-email" v-slot="{ attrs }" :label="t.inviteEmail" :error="refused?.at('email')"><ElInput v-bind="attrs" v-model="form.email" type="email" autocomplete="off" /></FieldBox>
          <FieldBox id="invite-role" v-slot="{ attrs }" :label="t.inviteRole" :hint="t.roleHints[form.role]"><ChoiceField v-bind="attrs" v-model="form.role" :choices="roleChoices" /></FieldBox>
          <p v-if="refused && refused.errors.length === 0" class="error" role="alert">{{ refused.title }}. {{ refused.detail }}</p>
          <ElButton type="primary" native-type="submit" :loading="busy">{{ t.inviteSend }}</ElButton>
        </form>
      </section>
      <TeamSettingsPart />
      <SpacePart />
      <LeaveDialog v-if="leaving" :leaving="leaving" :others="here.filter((one) => one.member.id !== leaving!.member.id)" @close="leaving = undefined" @left="hasLeft" />
    </template>
  </div>
</template>

<style scoped>
section {
  margin-top: 28px;
}
h2 {
  margin-bottom: 6px;
  font-size: 20px;
}
td {
  vertical-align: middle;
}
.role {
  width: 190px;
}
.acts {
  text-align: right;
}
.gone td {
  color: var(--slate);
}
.made {
  margin: 16px 0 0;
  padding: 8px 12px;
  border-left: 5px solid var(--oak);
  background: var(--card);
  overflow-wrap: anywhere;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li .el-button {
  margin-left: 8px;
}
.invite {
  display: grid;
  grid-template-columns: minmax(0, 220px) minmax(0, 260px) minmax(0, 340px) auto;
  gap: 14px;
  align-items: start;
}
.invite > .el-button {
  margin-top: 28px;
  justify-self: start;
}
.invite > .error {
  grid-column: 1 / -1;
}
@media (max-width: 1100px) {
  .invite {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
