<script setup lang="ts">
import { reactive } from 'vue'
import { useRouter } from 'vue-router'
import { desk } from '../../../api/desk'
import { limits } from '../../../api/limits'
import { text } from '../../../text/desk'
import DateField from '../../fields/DateField.vue'
import FoldedPart from '../../fields/FoldedPart.vue'
import PeopleField from '../../PeopleField.vue'
import { say } from '../../say'
import { useSubmit } from '../../use-submit'
import FieldBox from '../compose/FieldBox.vue'
import { OFFERED_DAYS } from '../links/renewals'
import WindowFields from '../parcels/WindowFields.vue'
import RightsPart from './RightsPart.vue'

/** A new place for one person outside. */
const t = text.exchanges
const p = text.parcels
const most = limits.ExchangeSheet
const router = useRouter()
const form = reactive({
  title: '', message: '', name: '', email: '', item: '', ends: 'days' as 'days' | 'until', days: OFFERED_DAYS[0] as number | undefined, endsOn: '', endsAt: '', beginsOn: '', passcode: '', readable: '', byLetter: true,
  rights: { putIn: true, see: true, takeAway: true, asksFirst: false },
})
const { problem, busy, submit } = useSubmit(async () => {
  const { id } = await desk.makeExchange({
    title: form.title, message: form.message, person: { name: form.name, email: form.email }, item: form.item, ...form.rights,
    days: form.ends === 'days' ? (form.days ?? 0) : null, beginsOn: form.beginsOn, beginsAt: '', endsOn: form.ends === 'until' ? form.endsOn : '', endsAt: form.ends === 'until' ? form.endsAt : '',
    passcode: form.passcode, name: form.readable, byLetter: form.byLetter,
  })
  say(form.byLetter ? t.openedLetter : t.opened)
  await router.push({ name: 'exchange', params: { id } })
})
const at = (field: string) => problem.value?.at(field) ?? ''
</script>

<template>
  <div class="page">
    <header>
      <div>
        <p class="back"><RouterLink to="/exchanges">{{ t.back }}</RouterLink></p>
        <h1>{{ t.make }}</h1>
      </div>
    </header>
    <form novalidate @submit.prevent="submit">
      <section>
        <h2>{{ t.what }}</h2>
        <FieldBox id="exchange-title" v-slot="{ attrs }" :label="t.name" :hint="t.nameHint" :error="at('title')"><ElInput v-bind="attrs" v-model="form.title" :maxlength="most.title.longest" /></FieldBox>
        <FieldBox id="exchange-message" v-slot="{ attrs }" :label="t.message" :hint="t.messageHint" :error="at('message')"><ElInput v-bind="attrs" v-model="form.message" type="textarea" :rows="3" :maxlength="most.message.longest" /></FieldBox>
        <h2>{{ t.who }}</h2>
        <p class="quiet">{{ t.whoHint }}</p>
        <label for="exchange-find">{{ t.findPerson }}</label>
        <PeopleField id="exchange-find" :label="t.findPerson" :placeholder="t.findPersonHint" @contact="(contact) => Object.assign(form, { name: contact.name, email: contact.email })" />
        <div class="two">
          <FieldBox id="exchange-name" v-slot="{ attrs }" :label="t.personName"><ElInput v-bind="attrs" v-model="form.name" /></FieldBox>
          <FieldBox id="exchange-email" v-slot="{ attrs }" :label="t.personEmail" :error="at('person') || at('people') || at('email')"><ElInput v-bind="attrs" v-model="form.email" type="email" /></FieldBox>
        </div>
      </section>
      <section>
        <h2>{{ t.rightsTitle }}</h2>
        <RightsPart id="exchange-rights" v-model="form.rights" titled :error="at('putIn')" />
        <FieldBox v-if="form.rights.putIn" id="exchange-item" v-slot="{ attrs }" :label="t.item" :hint="t.itemHint" :error="at('item')"><ElInput v-bind="attrs" v-model="form.item" :placeholder="t.itemUsual" :maxlength="most.item.longest" /></FieldBox>
        <h2>{{ t.until }}</h2>
        <WindowFields id="exchange" v-model="form" :label="t.until" :error="at('days') || at('ends')" :wrong-days="!!at('days')" />
        <FoldedPart :label="t.moreTerms">
          <div class="two">
            <FieldBox id="exchange-begins" :label="p.beginsOn" :error="at('begins')"><template #default="{ attrs }"><DateField v-bind="attrs" v-model="form.beginsOn" /></template></FieldBox>
            <FieldBox id="exchange-passcode" v-slot="{ attrs }" :label="p.passcodeField" :hint="p.passcodeHint" :error="at('passcode')"><ElInput v-bind="attrs" v-model="form.passcode" autocomplete="off" :maxlength="most.passcode.longest" /></FieldBox>
            <FieldBox id="exchange-readable" v-slot="{ attrs }" :label="p.readable" :error="at('name')"><ElInput v-bind="attrs" v-model="form.readable" :maxlength="most.name.longest" /></FieldBox>
          </div>
        </FoldedPart>
        <ElCheckbox v-model="form.byLetter" aria-describedby="exchange-letter">{{ t.letter }}</ElCheckbox>
        <p id="exchange-letter" class="quiet">{{ t.letterHint }}</p>
      </section>
      <footer>
        <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
        <ElButton type="primary" native-type="submit" :loading="busy">{{ t.open }}</ElButton>
      </footer>
    </form>
  </div>
</template>

<style scoped>
.back {
  font-size: 15px;
}
form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 10px 36px;
  align-items: start;
}
section {
  display: grid;
  gap: 8px;
}
h2 {
  margin-top: 6px;
  font-size: 18px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 18px;
}
footer {
  grid-column: 1 / -1;
}
</style>
