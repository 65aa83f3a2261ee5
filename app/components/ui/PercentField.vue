<script setup lang="ts">
import SliderField from './SliderField.vue'

/** A share 0..1 as a slider of percent. */
defineProps<{ label: string; min?: number; max?: number; step?: number; disabled?: boolean }>()
const model = defineModel<number>({ required: true })
</script>

<template>
  <SliderField
    :label="label"
    :value="Math.round(model * 100)"
    :min="min ?? 0"
    :max="max ?? 100"
    :step="step ?? 5"
    :disabled="disabled"
    unit="%"
    @look="(v) => (model = v / 100)"
    @keep="(v) => (model = v / 100)"
  />
</template>
