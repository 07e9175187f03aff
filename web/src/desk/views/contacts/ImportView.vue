<script setup lang="ts">
import { computed, ref } from 'vue'
import { desk, type Verdict } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say, sayProblem } from '../../say'
import { useImport } from './use-import'

const t = text.importing
const { unsure, staged, mapping, preview, verdict, progress, problem, reading, running, read, readAs, more, apply, again } = useImport()
const pasted = ref('')
const verdicts: Verdict[] = ['ADDED', 'CHANGED', 'UNCHANGED', 'REFUSED']
const count = computed(() => ({ ADDED: preview.value?.added ?? 0, CHANGED: preview.value?.changed ?? 0, UNCHANGED: preview.value?.unchanged ?? 0, REFUSED: preview.value?.refused ?? 0 }))

function choose(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) void read(file, file.name)
}

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
        <button class="button" type="button" @click="undo">{{ t.undo }}</button>
        <button class="button plain" type="button" @click="again">{{ t.another }}</button>
      </div>
    </section>
    <section v-else-if="running" class="card" role="status">
      <p>{{ t.running(progress!.done, progress!.total) }}</p>
      <progress :value="progress!.done" :max="progress!.total" :aria-label="t.title"></progress>
    </section>

    <section v-else-if="!staged" class="card sources">
      <div>
        <label for="import-file">{{ t.choose }}</label>
        <input id="import-file" type="file" accept=".csv,.txt,.tsv,.vcf,text/csv,text/vcard,text/plain" @change="choose" />
        <p v-if="reading" class="quiet" role="status">{{ text.loading }}</p>
      </div>
      <form @submit.prevent="readPasted()">
        <label for="import-paste">{{ t.orPaste }}</label>
        <textarea id="import-paste" v-model="pasted" class="input" rows="7" spellcheck="false"></textarea>
        <button class="button" type="submit" :disabled="!pasted.trim() || reading">{{ t.read }}</button>
      </form>
    </section>

    <template v-else>
      <section v-if="staged.table" class="card">
        <h2>{{ t.columns }}</h2>
        <div class="reading">
          <label>{{ t.charset }}
            <select class="input" :value="staged.charset" @change="readAs(($event.target as HTMLSelectElement).value, staged!.delimiter)">
              <option v-for="one in ['UTF-8', 'Windows-1252', 'UTF-16LE', 'UTF-16BE']" :key="one">{{ one }}</option>
            </select>
          </label>
          <label>{{ t.delimiter }}
            <select class="input" :value="staged.delimiter" @change="readAs(staged!.charset, ($event.target as HTMLSelectElement).value)">
              <option v-for="(words, one) in t.delimiters" :key="one" :value="one">{{ words }}</option>
            </select>
          </label>
          <label class="tick"><input v-model="mapping.headed" type="checkbox" /> {{ t.headed }}</label>
        </div>
        <div class="scroll" tabindex="0" role="region" :aria-label="t.columns">
          <table class="plain">
            <thead>
              <tr>
                <th v-for="(_, n) in mapping.columns" :key="n" scope="col">
                  <select v-model="mapping.columns[n]" class="input" :aria-label="t.column(n + 1)">
                    <option v-for="(words, meaning) in t.meanings" :key="meaning" :value="meaning">{{ words }}</option>
                  </select>
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
        <input id="import-group" v-model="mapping.group" class="input group" maxlength="100" />
      </section>
      <section v-if="preview" class="card">
        <h2>{{ t.preview }}</h2>
        <div class="chips" role="group" :aria-label="t.preview">
          <button v-for="one in verdicts" :key="one" type="button" :aria-pressed="verdict === one" @click="verdict = one">{{ t.verdicts[one] }} <span>{{ count[one] }}</span></button>
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
        <p v-if="preview.lines.length < count[verdict]" class="actions"><button class="button small" type="button" @click="more">{{ text.contacts.more }}</button></p>
        <p v-if="progress?.state === 'FAILED'" class="error" role="alert">{{ progress.problem }}</p>
        <div class="actions">
          <button class="button primary" type="button" :disabled="unsure || count.ADDED + count.CHANGED === 0" @click="apply">{{ t.confirm(count.ADDED, count.CHANGED) }}</button>
          <button class="button plain" type="button" @click="again">{{ t.another }}</button>
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
label {
  font-weight: 600;
}
.sources input,
.sources textarea {
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
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 40px;
}
.scroll {
  overflow-x: auto;
}
th .input {
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
progress {
  width: 100%;
  accent-color: var(--leaf);
}
</style>
