<script setup lang="ts">
import { nextTick, useTemplateRef } from 'vue'
import { text } from '../../../text/desk'
import RuleForm from './RuleForm.vue'
import { effectWords, whenWords, type Root, type Rule } from './rule-words'

/** One rule: a sentence that unfolds to be changed, with its place in the list. */
const props = defineProps<{ number: number; count: number; rule: Rule; idle?: string; faulty: boolean; roots: Root[]; round: number; items: string[]; groups: string[]; errorAt: (field: string) => string; folderOfRound: string; nameOfRound: string }>()
const emit = defineEmits<{ move: [by: number]; remove: [] }>()
const open = defineModel<boolean>('open', { required: true })
const t = text.filing
const root = useTemplateRef<HTMLElement>('root')

async function move(by: number) {
  emit('move', by)
  await nextTick()
  root.value?.querySelector<HTMLElement>(by < 0 ? '.up' : '.down')?.focus()
}

function keys(event: KeyboardEvent) {
  if (!event.altKey || !['ArrowUp', 'ArrowDown'].includes(event.key)) return
  event.preventDefault()
  void move(event.key === 'ArrowUp' ? -1 : 1)
}
const parts = () => effectWords(props.rule, props.roots)
</script>

<template>
  <li ref="root" class="rule" :class="{ off: !rule.active, idle: !!idle, faulty }" @keydown="keys">
    <div class="head">
      <span class="number" aria-hidden="true">{{ number }}</span>
      <div class="sentence">
        <p><strong>{{ rule.name || t.rule(number) }}</strong> <span v-if="rule.also" class="tag">{{ t.also }}</span> <span v-if="!rule.active" class="tag">{{ t.off }}</span></p>
        <p>{{ whenWords(rule) }}</p>
        <p class="effects"><span v-for="part in parts()" :key="part" class="mono">→ {{ part }}</span></p>
        <p v-if="idle" class="warn">{{ idle }}</p>
      </div>
      <div class="acts">
        <ElButton class="up" size="small" :disabled="number === 1" :aria-label="`${t.up}: ${rule.name || t.rule(number)}`" @click="move(-1)">↑</ElButton>
        <ElButton class="down" size="small" :disabled="number === count" :aria-label="`${t.down}: ${rule.name || t.rule(number)}`" @click="move(1)">↓</ElButton>
        <ElButton size="small" :aria-expanded="open" :aria-label="`${open ? t.done : t.edit}: ${rule.name || t.rule(number)}`" @click="open = !open">{{ open ? t.done : t.edit }}</ElButton>
        <ElButton size="small" :aria-label="`${t.remove}: ${rule.name || t.rule(number)}`" @click="emit('remove')">{{ t.remove }}</ElButton>
      </div>
    </div>
    <RuleForm v-if="open" :id="`rule-${number}`" :at="`rules[${number - 1}]`" :rule="rule" :roots="roots" :round="round" :items="items" :groups="groups" :error-at="errorAt" :folder-of-round="folderOfRound" :name-of-round="nameOfRound" />
  </li>
</template>

<style scoped>
.rule {
  padding: 10px 14px;
  border: 1px solid var(--line);
  border-left: 5px solid var(--leaf);
  border-radius: 4px;
  background: var(--card);
}
.rule.off {
  border-left-color: var(--line-strong);
}
.rule.idle {
  border-left-color: var(--acorn);
}
.rule.faulty {
  border-left-color: var(--rowan);
}
.head {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 12px;
}
.number {
  font-family: var(--heading);
  font-size: 22px;
}
.sentence p {
  margin: 0;
  overflow-wrap: anywhere;
}
.effects {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  font-size: 15px;
}
.tag {
  padding: 0 6px;
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  font-size: 14px;
}
.acts {
  display: flex;
  gap: 6px;
  align-items: start;
}
.warn {
  color: var(--rowan);
}
</style>
