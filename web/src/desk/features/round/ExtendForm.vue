<script setup lang="ts">
import { nextTick, onMounted, ref, useTemplateRef } from 'vue'
import { limits } from '../../../api/limits'
import { ApiProblem } from '../../../api/problem'
import { text } from '../../../text/desk'
import DateField from '../../fields/DateField.vue'

const props = defineProps<{ date: string; reason: string; save: (date: string | null, reason: string) => Promise<void> }>()
const emit = defineEmits<{ done: [] }>()
const t = text.panel
const date = ref(props.date)
const reason = ref(props.reason)
const problem = ref<ApiProblem>()
const first = useTemplateRef('first')

onMounted(() => nextTick(() => first.value?.focus()))

async function submit(to: string | null) {
  try {
    await props.save(to, reason.value)
    emit('done')
  } catch (error) {
    problem.value = error as ApiProblem
  }
}
</script>

<template>
  <form class="extend" novalidate @submit.prevent="submit(date || null)" @keydown.esc.stop="emit('done')">
    <label for="extend-date">{{ t.extendDate }}</label>
    <DateField id="extend-date" ref="first" v-model="date" :aria-invalid="!!problem?.at('date')" aria-describedby="extend-date-error" />
    <p id="extend-date-error" class="error" role="alert">{{ problem?.at('date') }}</p>
    <label for="extend-reason">{{ t.extendReason }}</label>
    <ElInput id="extend-reason" v-model="reason" :maxlength="limits.BasketChange.reason.longest" :aria-invalid="!!problem?.at('reason')" aria-describedby="extend-reason-error" />
    <p id="extend-reason-error" class="error" role="alert">{{ problem?.at('reason') }}</p>
    <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.detail }}</p>
    <div class="actions">
      <ElButton type="primary" size="small" native-type="submit">{{ t.extendSave }}</ElButton>
      <ElButton v-if="props.date" size="small" @click="submit(null)">{{ t.unextend }}</ElButton>
      <ElButton size="small" @click="emit('done')">{{ text.round.cancel }}</ElButton>
    </div>
  </form>
</template>

<style scoped>
.extend {
  display: grid;
  max-width: 520px;
  gap: 4px;
  padding: 10px 12px;
  background: var(--tint);
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
