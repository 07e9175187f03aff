<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type Schemas } from '../../../api/desk'
import { ApiProblem } from '../../../api/problem'
import { session } from '../../use-session'
import { text } from '../../../text/desk'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import ChoiceField from '../../fields/ChoiceField.vue'
import DateField from '../../fields/DateField.vue'
import { choices } from '../../fields/choices'
import FieldBox from '../compose/FieldBox.vue'

/** How a round comes again: the usual ways by choice, any other by a rule; always said back in words with its next dates. */
const props = defineProps<{ series?: Schemas['ListedSeries']; label: string; save: (terms: Schemas['SeriesTerms']) => Promise<void>; reload: () => Promise<unknown> }>()
const t = text.series
type Preset = keyof typeof t.presets
const form = reactive({
  preset: (props.series ? 'own' : 'lastWorking') as Preset,
  day: 15,
  nth: '1',
  weekday: 'MO',
  interval: 1,
  rule: props.series?.rule ?? '',
  startsOn: props.series?.startsOn ?? officeToday(),
  opensDaysBefore: props.series?.opensDaysBefore ?? 14,
  shift: props.series?.shift ?? 'EARLIER',
  opensItself: props.series?.opensItself ?? false,
})
/** Today where the office is, which may not be today where this browser is. */
function officeToday(): string {
  return new Intl.DateTimeFormat('en-CA', { timeZone: session.value?.zone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(new Date())
}

const preview = ref<Schemas['SeriesPreview']>()
/** Whether the first round would have had to open before today. */
const late = computed(() => !props.series && (preview.value?.coming[0]?.opens ?? '9') < officeToday())
const lateIsFine = ref(false)
const lateAsked = ref(false)

const rule = computed(() => {
  switch (form.preset) {
    case 'lastWorking':
      return 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1'
    case 'monthDay':
      return `FREQ=MONTHLY;BYMONTHDAY=${form.day}`
    case 'monthWeekday':
      return `FREQ=MONTHLY;BYDAY=${form.nth}${form.weekday}`
    case 'weekly':
      return `FREQ=WEEKLY;INTERVAL=${form.interval};BYDAY=${form.weekday}`
    default:
      return form.rule
  }
})
const terms = computed<Schemas['SeriesTerms']>(() => ({
  rule: rule.value,
  startsOn: form.startsOn || null,
  opensDaysBefore: form.opensDaysBefore,
  shift: form.shift,
  opensItself: form.opensItself,
}))

async function look() {
  try {
    preview.value = await desk.previewSeries(terms.value)
    problem.value = undefined
  } catch (error) {
    preview.value = undefined
    problem.value = error as ApiProblem
  }
}

const { conflicts, asked, problem, submit: keep, decide } = useBoth(form, {
  kept: () => {
    if (!props.series) return undefined
    const { rule, startsOn, opensDaysBefore, shift, opensItself } = props.series
    return { rule, startsOn, opensDaysBefore, shift, opensItself }
  },
  version: () => props.series?.version,
  reload: props.reload,
  send: () => props.save(terms.value),
})
/** However it was chosen, the rule is what is kept. */
watch(rule, (now) => (form.rule = now), { flush: 'sync' })
watch(() => form.rule, (now) => now !== rule.value && (form.preset = 'own'))
const names = { rule: t.rule, startsOn: t.startsOn, opensDaysBefore: t.opensDaysBefore, shift: t.shift, opensItself: t.itself }

watchDebounced(terms, () => void look(), { debounce: 250, immediate: true })

async function submit() {
  lateAsked.value = late.value && !lateIsFine.value
  if (lateAsked.value) return
  await keep()
}

const dayWords = (date: string) => new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(new Date(`${date}T12:00:00Z`))
const error = (field: string) => problem.value?.at(field) ?? ''
</script>

<template>
  <BothVersions v-if="asked" :conflicts="conflicts" :names="names" @decide="decide" />
  <form class="series" novalidate @submit.prevent="submit">
    <div>
      <FieldBox id="series-preset" v-slot="{ attrs }" :label="t.how" :error="form.preset === 'own' ? '' : error('rule')">
        <ChoiceField v-bind="attrs" v-model="form.preset" :choices="choices(t.presets)" />
      </FieldBox>
      <FieldBox v-if="form.preset === 'monthDay'" id="series-day" v-slot="{ attrs }" :label="t.day"><ElInput v-bind="attrs" v-model.number="form.day" type="number" min="-31" max="31" /></FieldBox>
      <div v-if="form.preset === 'monthWeekday' || form.preset === 'weekly'" class="two">
        <FieldBox v-if="form.preset === 'monthWeekday'" id="series-nth" v-slot="{ attrs }" :label="t.nth">
          <ChoiceField v-bind="attrs" v-model="form.nth" :choices="choices<string>(t.nths)" />
        </FieldBox>
        <FieldBox v-else id="series-interval" v-slot="{ attrs }" :label="t.interval"><ElInput v-bind="attrs" v-model.number="form.interval" type="number" min="1" max="52" /></FieldBox>
        <FieldBox id="series-weekday" v-slot="{ attrs }" :label="t.weekday">
          <ChoiceField v-bind="attrs" v-model="form.weekday" :choices="choices<string>(t.weekdays)" />
        </FieldBox>
      </div>
      <FieldBox v-if="form.preset === 'own'" id="series-rule" v-slot="{ attrs }" :label="t.rule" :error="error('rule')"><ElInput v-bind="attrs" v-model="form.rule" class="mono" :maxlength="limits.SeriesTerms.rule.longest" spellcheck="false" /></FieldBox>
      <div class="two">
        <FieldBox id="series-start" v-slot="{ attrs }" :label="t.startsOn" :error="error('startsOn')"><DateField v-bind="attrs" v-model="form.startsOn" /></FieldBox>
        <FieldBox id="series-opens" v-slot="{ attrs }" :label="t.opensDaysBefore" :error="error('opensDaysBefore')"><ElInput v-bind="attrs" v-model.number="form.opensDaysBefore" type="number" min="1" :max="limits.SeriesTerms.opensDaysBefore.most" /></FieldBox>
      </div>
      <FieldBox id="series-shift" v-slot="{ attrs }" :label="t.shift">
        <ChoiceField v-bind="attrs" v-model="form.shift" :choices="choices<string>(t.shifts)" />
      </FieldBox>
      <ElCheckbox v-model="form.opensItself">{{ t.itself }}</ElCheckbox>
      <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.detail }}</p>
      <p class="go"><ElButton type="primary" native-type="submit" :disabled="!preview">{{ label }}</ElButton></p>
    </div>
    <aside aria-live="polite">
      <template v-if="preview">
        <p class="words">{{ t.words(preview.words) }}</p>
        <h3>{{ t.coming }}</h3>
        <ol>
          <li v-for="one in preview.coming" :key="one.occurrence">{{ t.comingOne(dayWords(one.opens), dayWords(one.deadline)) }}</li>
        </ol>
        <div v-if="late" class="late">
          <p>{{ t.late(dayWords(preview.coming[0]!.opens)) }}</p>
          <ElCheckbox v-model="lateIsFine">{{ t.lateIsFine }}</ElCheckbox>
          <p v-if="lateAsked && !lateIsFine" class="error" role="alert">{{ t.lateAsk }}</p>
        </div>
      </template>
    </aside>
  </form>
</template>

<style scoped>
.late {
  padding-left: 10px;
  border-left: 4px solid var(--acorn);
}
.series {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 32px;
  padding: 18px 22px;
  border: 1px solid var(--line);
  background: var(--card);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px;
  align-items: end;
}
.go {
  margin-top: 10px;
}
.words {
  margin-bottom: 12px;
  font: 600 18px var(--heading);
}
h3 {
  font-size: 16px;
}
ol {
  margin: 6px 0;
  padding-left: 20px;
}
</style>
