<script setup lang="ts">
import { text } from '../../../text/desk'
import PartTabs from '../../PartTabs.vue'

/** What goes out: files handed out, and places in which papers go in both directions. */
const t = text.exchanges.parts
</script>

<template>
  <PartTabs :label="t.label" :parts="[{ to: '/parcels', label: t.parcels }, { to: '/exchanges', label: t.exchanges }]" />
</template>
