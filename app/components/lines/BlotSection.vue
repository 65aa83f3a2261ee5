<script setup lang="ts">
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useStudioStore } from '~/stores/studio'

const studio = useStudioStore()
const set = (v: number): void => void (studio.preferences.blotSize = v)
</script>

<template>
  <SliderField
    label="Width"
    :value="studio.preferences.blotSize"
    :min="1"
    :max="120"
    :step="1"
    unit="px"
    @look="set"
    @keep="set"
  />
  <TickField v-model="studio.preferences.blotMerges">Becomes one with shapes of its ink that it touches</TickField>
</template>
