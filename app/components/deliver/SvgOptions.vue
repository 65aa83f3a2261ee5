<script setup lang="ts">
import GroundField from './GroundField.vue'
import LeavingField from './LeavingField.vue'
import { useDeliveryStore } from '~/stores/delivery'

/** How outlines are written as SVG. */
const delivery = useDeliveryStore()

function setDigits(e: Event): void {
  const { value } = e.target as HTMLSelectElement
  delivery.settings.svg.digits = value === '' ? null : Number(value)
}
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
    <LeavingField />
    <label
      class="flex items-center gap-2"
      title="Neighbours of the stack that belong together stand in a group of that name"
    >
      Groups
      <select v-model="delivery.settings.svg.groups" class="field" data-testid="groups">
        <option value="flat">None</option>
        <option value="layer">By layer</option>
        <option value="ink">By ink</option>
      </select>
    </label>
    <label class="flex items-center gap-2" title="What coordinates are told in; the page keeps its size">
      In
      <select v-model="delivery.settings.svg.unit" class="field" data-testid="unit">
        <option value="px">px</option>
        <option value="mm">mm</option>
      </select>
    </label>
    <label class="flex items-center gap-2">
      Decimals
      <select class="field" :value="delivery.settings.svg.digits ?? ''" data-testid="digits" @change="setDigits">
        <option value="">As can be seen</option>
        <option v-for="n in 6" :key="n" :value="n">{{ n }}</option>
      </select>
    </label>
    <GroundField />
  </div>
</template>
