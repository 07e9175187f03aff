<script setup lang="ts">
/** A button that offers names; one of them is picked. */
defineProps<{ label: string; names: string[]; small?: boolean }>()
const emit = defineEmits<{ pick: [n: number] }>()
</script>

<template>
  <ElDropdown trigger="click" :teleported="false" @command="(n: number) => emit('pick', n)">
    <ElButton :size="small ? 'small' : 'default'">{{ label }}<span class="sign" aria-hidden="true">▾</span></ElButton>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem v-for="(name, n) in names" :key="n" :command="n">{{ name }}</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
.sign {
  margin-left: 6px;
}
</style>
