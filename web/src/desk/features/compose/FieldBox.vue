<script setup lang="ts">
/** A labelled field with its error below; the slot gets the attributes that tie the three together. */
defineProps<{ id: string; label: string; error?: string; hint?: string }>()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <slot :attrs="{ id, 'aria-invalid': !!error, 'aria-describedby': `${id}-error${hint ? ` ${id}-hint` : ''}` }" />
    <p v-if="hint" :id="`${id}-hint`" class="quiet hint">{{ hint }}</p>
    <p :id="`${id}-error`" class="error" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.hint {
  font-size: 15px;
}
</style>
