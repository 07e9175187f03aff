<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { desk, type RoundSheet, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import FieldBox from './FieldBox.vue'

defineProps<{ sheet: RoundSheet; errorAt: (field: string) => string }>()
const t = text.compose
const post = ref<Schemas['PostView']>()
onMounted(async () => (post.value = await desk.post().catch(() => undefined)))
</script>

<template>
  <p>{{ t.personal }}</p>
  <fieldset class="invite">
    <legend>{{ text.post.inviteTitle }}</legend>
    <label class="tick"><input v-model="sheet.letters.invite" type="radio" name="invite" :value="true" /> {{ text.post.invite }}</label>
    <label class="tick"><input v-model="sheet.letters.invite" type="radio" name="invite" :value="false" /> {{ text.post.inviteNot }}</label>
    <p v-if="post && (sheet.letters.invite || sheet.letters.steps.length > 0) && !post.server" class="warn" role="status">{{ text.post.standIn }}</p>
    <p v-else-if="post && (sheet.letters.invite || sheet.letters.steps.length > 0) && !post.reachable" class="warn" role="status">{{ text.post.local(post.links) }}</p>
  </fieldset>
  <label class="tick"><input v-model="sheet.openLink" type="checkbox" /> {{ t.openLink }}</label>
  <FieldBox v-if="sheet.openLink" id="passcode" v-slot="{ attrs }" :label="t.passcode" :error="errorAt('passcode')">
    <input v-bind="attrs" v-model="sheet.passcode" class="input" maxlength="64" autocomplete="off" />
  </FieldBox>
</template>

<style scoped>
.invite {
  margin: 8px 0;
  padding: 0;
  border: 0;
}
legend {
  padding: 0;
  font-weight: 600;
}
.tick {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 36px;
}
.tick input[type='radio'] {
  width: 18px;
  height: 18px;
  accent-color: var(--leaf);
}
.warn {
  padding-left: 10px;
  border-left: 4px solid var(--acorn);
}
</style>
