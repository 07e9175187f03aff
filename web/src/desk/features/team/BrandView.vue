<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, reactive, ref } from 'vue'
import { desk } from '../../../api/desk'
import { text } from '../../../text/desk'
import FailureNote from '../../FailureNote.vue'
import LoadingPart from '../../LoadingPart.vue'
import FileButton from '../../fields/FileButton.vue'
import { useRead } from '../../queries'
import { say, sayProblem } from '../../say'
import BothVersions from '../../both/BothVersions.vue'
import { useBoth } from '../../both/use-both'
import FieldBox from '../compose/FieldBox.vue'
import FacePreview from './FacePreview.vue'

/** The office's own face, tried before it is kept. */
const t = text.brand
const WAIT_MILLISECONDS = 300
const USUAL = { colour: '#47682f', background: '#f6f1e6' }
const HEX = /^#?[0-9a-fA-F]{6}$/
const { value: kept, problem: unread, load } = useRead(['brand'], desk.brand)
const form = reactive({ name: '', colour: '', background: '', logo: '', contact: '', privacy: '' })
const typed = computed(() => ({ colour: form.colour, background: form.background }))
const settled = refDebounced(typed, WAIT_MILLISECONDS)
const readable = computed(() => HEX.test(settled.value.colour) && HEX.test(settled.value.background))
const { value: seen } = useRead(computed(() => ['brand-colours', settled.value]), () => desk.lookAtColours(settled.value.colour, settled.value.background), { when: readable })
const part = ref<'page' | 'pickUp' | 'letter' | 'sheet'>('page')
const own = (value: string, usual: string) => (value.toLowerCase() === usual ? '' : value)

const { conflicts, asked, problem, busy, submit, decide } = useBoth(form, {
  kept: () => {
    if (!kept.value) return undefined
    const { name, colour, background, logo, contact, privacy } = kept.value
    return { name, colour: colour || USUAL.colour, background: background || USUAL.background, logo, contact, privacy }
  },
  version: () => kept.value?.version,
  reload: load,
  send: () => desk.changeFace({ ...form, colour: own(form.colour, USUAL.colour), background: own(form.background, USUAL.background), version: kept.value?.version ?? 0 }),
  done: () => {
    say(t.kept)
    return load()
  },
})
const names = { name: t.name, colour: t.colour, background: t.background, logo: t.logo, contact: t.contact, privacy: t.privacy }

async function putLogoIn(file: File) {
  try {
    form.logo = (await desk.putLogoIn(file)).logo
  } catch (error) {
    sayProblem(error)
  }
}
</script>

<template>
  <div class="page">
    <header><div><h1>{{ t.title }}</h1><p class="quiet">{{ t.intro }}</p></div></header>
    <BothVersions v-if="asked" :conflicts="conflicts" :names="names" @decide="decide" />
    <FailureNote v-if="unread" :problem="unread" @retry="load" />
    <LoadingPart v-else-if="!kept" />
    <div v-else class="both">
      <form novalidate @submit.prevent="submit">
        <FieldBox id="brand-name" v-slot="{ attrs }" :label="t.name" :error="problem?.at('name')"><ElInput v-bind="attrs" v-model="form.name" /></FieldBox>
        <div class="field">
          <span class="label">{{ t.logo }}</span>
          <p class="logo"><img v-if="form.logo" :src="`/brand/${form.logo}.png`" alt="" /> <FileButton :label="t.chooseLogo" accept="image/png,image/jpeg,image/gif" @file="putLogoIn" /> <ElButton v-if="form.logo" link type="primary" @click="form.logo = ''">{{ t.noLogo }}</ElButton></p>
          <p class="quiet">{{ t.logoHint }}</p>
          <p v-if="problem?.at('logo')" class="error" role="alert">{{ problem.at('logo') }}</p>
        </div>
        <FieldBox id="brand-colour" v-slot="{ attrs }" :label="t.colour" :hint="t.colourHint" :error="problem?.at('colour')"><span class="hex"><span class="swatch" :style="{ background: form.colour }" aria-hidden="true" /><ElInput v-bind="attrs" v-model="form.colour" class="mono" spellcheck="false" /></span></FieldBox>
        <p v-if="seen && readable" class="seen" role="status">
          {{ seen.contrast >= 4.5 ? t.contrast(seen.contrast.toFixed(1)) : t.tooFaint(seen.contrast.toFixed(1)) }}
          <ElButton v-if="seen.contrast < 4.5" size="small" @click="form.colour = seen.nearest">{{ t.nearest(seen.nearest) }}</ElButton>
        </p>
        <FieldBox id="brand-background" v-slot="{ attrs }" :label="t.background" :error="problem?.at('background')"><span class="hex"><span class="swatch" :style="{ background: form.background }" aria-hidden="true" /><ElInput v-bind="attrs" v-model="form.background" class="mono" spellcheck="false" /></span></FieldBox>
        <p v-if="seen && readable && seen.textContrast < 4.5" class="seen">
          {{ t.tooFaint(seen.textContrast.toFixed(1)) }} <ElButton size="small" @click="form.background = seen.nearestBackground">{{ t.nearest(seen.nearestBackground) }}</ElButton>
        </p>
        <ElButton link type="primary" @click="Object.assign(form, USUAL)">{{ t.usual }}</ElButton>
        <FieldBox id="brand-contact" v-slot="{ attrs }" :label="t.contact" :hint="t.contactHint" :error="problem?.at('contact')"><ElInput v-bind="attrs" v-model="form.contact" /></FieldBox>
        <FieldBox id="brand-privacy" v-slot="{ attrs }" :label="t.privacy" :hint="t.privacyHint" :error="problem?.at('privacy')"><ElInput v-bind="attrs" v-model="form.privacy" type="textarea" :rows="2" /></FieldBox>
        <p v-if="problem && problem.errors.length === 0" class="error" role="alert">{{ problem.title }}. {{ problem.detail }}</p>
        <ElButton type="primary" native-type="submit" :loading="busy">{{ t.keep }}</ElButton>
      </form>
      <section aria-labelledby="brand-preview">
        <h2 id="brand-preview">{{ t.preview }}</h2>
        <ElRadioGroup v-model="part" :aria-label="t.preview">
          <ElRadioButton v-for="(label, key) in t.parts" :key="key" :value="key">{{ label }}</ElRadioButton>
        </ElRadioGroup>
        <FacePreview :face="form" :part="part" />
      </section>
    </div>
  </div>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 480px) minmax(0, 1fr);
  gap: 48px;
  align-items: start;
}
section {
  position: sticky;
  top: 12px;
}
h2 {
  margin-bottom: 8px;
  font-size: 20px;
}
.label {
  font-weight: 600;
}
.logo {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 4px 0;
}
.logo .file-button {
  flex-shrink: 0;
}
.logo img {
  max-width: 180px;
  max-height: 56px;
}
.hex {
  display: flex;
  gap: 10px;
  align-items: center;
}
.hex .el-input {
  width: 140px;
}
.swatch {
  width: 38px;
  height: 38px;
  border: 1px solid var(--line-strong);
  border-radius: var(--corner);
}
.seen {
  margin: 0 0 10px;
}
</style>
