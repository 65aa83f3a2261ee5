<script setup lang="ts">
import PercentField from '~/components/ui/PercentField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useStudioStore } from '~/stores/studio'

const studio = useStudioStore()
const setRadius = (v: number): void => void (studio.preferences.push.radius = v)
</script>

<template>
  <SliderField
    label="Radius"
    :value="studio.preferences.push.radius"
    :min="4"
    :max="400"
    :step="1"
    unit="px"
    @look="setRadius"
    @keep="setRadius"
  />
  <PercentField v-model="studio.preferences.push.strength" label="Strength" :min="10" />
  <p class="quiet">
    Bends several lines together, most in the middle of the circle. Nodes stay as they are, and smooth; weights, snips
    and what hangs on the lines go along. Chosen lines alone are pushed, or all where none is chosen.
  </p>
</template>
