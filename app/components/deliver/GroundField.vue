<script setup lang="ts">
import TickField from '~/components/ui/TickField.vue'
import { useDeliveryStore } from '~/stores/delivery'

/** Whether the page has a colour of its own beneath the ink, and which. */
const delivery = useDeliveryStore()
const PAPER = '#ffffff'
</script>

<template>
  <span class="flex items-center gap-2">
    <TickField
      :model-value="delivery.settings.ground !== null"
      title="The page as a rectangle beneath all ink; else it is clear"
      @update:model-value="(on) => (delivery.settings.ground = on ? PAPER : null)"
      >Ground</TickField
    >
    <input
      v-if="delivery.settings.ground !== null"
      type="color"
      class="h-6 w-8 cursor-pointer rounded border border-hair bg-raise p-0.5"
      aria-label="Colour of the ground"
      :value="delivery.settings.ground"
      @input="delivery.settings.ground = ($event.target as HTMLInputElement).value"
    />
  </span>
</template>
