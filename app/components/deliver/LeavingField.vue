<script setup lang="ts">
import { useDeliveryStore } from '~/stores/delivery'

/** How shapes lie on each other when they leave. */
const delivery = useDeliveryStore()

const LEAVING = [
  { id: 'stacked', title: 'Stacked', what: 'as they lie on each other' },
  { id: 'cut-out', title: 'Cut out', what: 'nothing overlaps' },
  { id: 'one', title: 'One ink', what: 'light cut out of dark' },
] as const
</script>

<template>
  <label class="flex min-w-0 items-center gap-2">
    Shapes
    <select v-model="delivery.settings.leaving" class="field min-w-0" data-testid="leaving">
      <option v-for="l in LEAVING" :key="l.id" :value="l.id">{{ l.title }}: {{ l.what }}</option>
    </select>
  </label>
</template>
