<script setup lang="ts">
import { computed, ref } from 'vue'
import { limits } from '../../../api/limits'
import { desk, type Verdict } from '../../../api/desk'
import { text } from '../../../text/desk'
import ChoiceField from '../../fields/ChoiceField.vue'
import FileButton from '../../fields/FileButton.vue'
import { choices } from '../../fields/choices'
import { say, sayProblem } from '../../say'
import FieldBox from '../compose/FieldBox.vue'
import { useImport } from './use-import'

const t = text.importing
const { unsure, staged, mapping, preview, verdict, progress, problem, reading, running, read, readAs, more, apply, again } = useImport()
const CHARSETS = ['UTF-8', 'Windows-1252', 'UTF-16LE', 'UTF-16BE'].map((name) => ({ value: name, label: name }))
const pasted = ref('')
const verdicts: Verdict[] = ['ADDED', 'CHANGED', 'UNCHANGED', 'REFUSED']
const count = computed(() => ({ ADDED: preview.value?.added ?? 0, CHANGED: preview.value?.changed ?? 0, UNCHANGED: preview.value?.unchanged ?? 0, REFUSED: preview.value?.refused ?? 0 }))

function readPasted() {
  return read(new Blob([pasted.value]), t.pasted)
}

async function undo() {
  try {
    say(text.contacts.keptOnUndo((await desk.undoContactAct(progress.value!.act)).kept))
    again()
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header><h1>{{ t.title }}</h1></header>
    <div v-if="problem" class="failure" role="alert"><span><strong>{{ problem.title }}.</strong> {{ problem.errors[0]?.detail ?? problem.detail }}</span></div>

    <section v-if="progress?.state === 'DONE'" class="card" role="status">
      <p>{{ t.done(count.ADDED, count.CHANGED) }}</p>
      <div class="actions">
        <RouterLink class="button primary" to="/contacts">{{ t.toContacts }}</RouterLink>
        <ElButton @click="undo">{{ t.undo }}</ElButton>
        <ElButton type="primary" link @click="again">{{ t.another }}</ElButton>
      </div>
    </section>
    <section v-else-if="running" class="card" role="status">
      <p>{{ t.running(progress!.done, progress!.total) }}</p>
      <ElProgress :percentage="Math.round((100 * progress!.done) / Math.max(1, progress!.total))" :aria-label="t.title" />
    </section>

    <section v-else-if="!staged" class="card sources">
      <div>
        <FileButton :label="t.choose" accept=".csv,.txt,.tsv,.vcf,text/csv,text/vcard,text/plain" @file="(file) => void read(file, file.name)" />
        <p v-if="reading" class="quiet" role="status">{{ text.loading }}</p>
      </div>
      <form @submit.prevent="readPasted()">
        <label for="import-paste">{{ t.orPaste }}</label>
        <ElInput id="import-paste" v-model="pasted" :rows="7" spellcheck="false" type="textarea" />
        <ElButton native-type="submit" :disabled="!pasted.trim() || reading">{{ t.read }}</ElButton>
      </form>
    </section>

    <template v-else>
      <section v-if="staged.table" class="card">
        <h2>{{ t.columns }}</h2>
        <div class="reading">
          <FieldBox id="import-charset" v-slot="{ attrs }" :label="t.charset"><ChoiceField v-bind="attrs" :model-value="staged.charset" :choices="CHARSETS" @update:model-value="(charset) => readAs(charset, staged!.delimiter)" /></FieldBox>
          <FieldBox id="import-delimiter" v-slot="{ attrs }" :label="t.delimiter"><ChoiceField v-bind="attrs" :model-value="staged.delimiter" :choices="choices<string>(t.delimiters)" @update:model-value="(delimiter) => readAs(staged!.charset, delimiter)" /></FieldBox>
          <ElCheckbox v-model="mapping.headed">{{ t.headed }}</ElCheckbox>
        </div>
        <div class="scroll" tabindex="0" role="region" :aria-label="t.columns">
          <table class="plain">
            <thead>
              <tr>
                <th v-for="(_, n) in mapping.columns" :key="n" scope="col">
                  <ChoiceField v-model="mapping.columns[n]!" :label="t.column(n + 1)" :choices="choices<string>(t.meanings)" />
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, n) in staged.sample" :key="n" :class="{ names: n === 0 && mapping.headed }">
                <td v-for="(_, c) in mapping.columns" :key="c" :class="{ left: mapping.columns[c] === 'NONE' }">{{ row[c] ?? '' }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <section class="card">
        <label for="import-group">{{ t.group }}</label>
        <ElInput id="import-group" v-model="mapping.group" class="group" :maxlength="limits.Mapping.group.longest" />
      </section>
      <section v-if="preview" class="card">
        <h2>{{ t.preview }}</h2>
        <div class="chips" role="group" :aria-label="t.preview">
          <ElButton v-for="one in verdicts" :key="one" :aria-pressed="verdict === one" @click="verdict = one">{{ t.verdicts[one] }} <span>{{ count[one] }}</span></ElButton>
          <span v-if="preview.odd > 0" class="odd">{{ t.odd(preview.odd) }}</span>
        </div>
        <p v-if="preview.lines.length === 0" class="quiet">{{ t.noLines }}</p>
        <table v-else class="plain">
          <thead>
            <tr>
              <th scope="col">{{ t.line }}</th>
              <th v-if="verdict === 'REFUSED'" scope="col">{{ t.remark }}</th>
              <template v-else>
                <th scope="col">{{ text.contacts.name }}</th>
                <th scope="col">{{ text.contacts.email }}</th>
                <th scope="col">{{ text.contacts.organisation }}</th>
                <th scope="col">{{ text.contacts.groups }}</th>
                <th scope="col">{{ verdict === 'CHANGED' ? t.changes : t.remark }}</th>
              </template>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in preview.lines" :key="line.number">
              <td>{{ line.number }}</td>
              <td v-if="verdict === 'REFUSED'" class="error">{{ line.reason }}</td>
              <template v-else>
                <td>{{ line.result?.name }}</td>
                <td class="mail">{{ line.result?.email }}</td>
                <td>{{ line.result?.organisation }}</td>
                <td>{{ line.result?.groups.join(', ') }}</td>
                <td><span v-if="line.changes.length">{{ line.changes.map((field) => (text.contacts as Record<string, unknown>)[field] ?? field).join(', ') }}</span> <span class="odd">{{ line.remarks.join('; ') }}</span></td>
              </template>
            </tr>
          </tbody>
        </table>
        <p v-if="preview.lines.length < count[verdict]" class="actions"><ElButton size="small" @click="more">{{ text.contacts.more }}</ElButton></p>
        <p v-if="progress?.state === 'FAILED'" class="error" role="alert">{{ progress.problem }}</p>
        <div class="actions">
          <ElButton type="primary" :disabled="unsure || count.ADDED + count.CHANGED === 0" @click="apply">{{ t.confirm(count.ADDED, count.CHANGED) }}</ElButton>
          <ElButton type="primary" link @click="again">{{ t.another }}</ElButton>
        </div>
      </section>
    </template>
  </div>
</template>

<style scoped>
.card {
  margin-bottom: 16px;
  padding: 16px 20px;
  border: 1px solid var(--line);
  background: var(--card);
}
.sources {
  display: grid;
  grid-template-columns: 1fr 1.4fr;
  gap: 32px;
}
label:not(.el-checkbox) {
  font-weight: 600;
}
.sources .el-textarea {
  margin: 6px 0 10px;
}
h2 {
  margin-bottom: 10px;
  font-size: 19px;
}
.reading {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px 24px;
  margin-bottom: 12px;
}
.scroll {
  overflow-x: auto;
}
th .choice-field {
  min-width: 130px;
}
.names {
  color: var(--slate);
  font-style: italic;
}
.left {
  color: var(--line-strong);
}
.group {
  display: block;
  max-width: 420px;
  margin-top: 6px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-bottom: 12px;
}
.odd {
  color: var(--acorn-text);
}
.mail {
  overflow-wrap: anywhere;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 14px;
}
</style>
