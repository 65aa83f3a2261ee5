<script setup lang="ts">
import SliderField from '~/components/ui/SliderField.vue'
import { useStudioStore } from '~/stores/studio'

const studio = useStudioStore()
const set = (v: number): void => void (studio.preferences.scrapeSize = v)
</script>

<template>
  <SliderField
    label="Width"
    :value="studio.preferences.scrapeSize"
    :min="1"
    :max="120"
    :step="1"
    unit="px"
    @look="set"
    @keep="set"
  />
  <p class="quiet">
    Only chosen shapes and lines are scraped. A line keeps its path: with Select, its scrapings can be taken back.
  </p>
</template>
