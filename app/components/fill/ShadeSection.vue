<script setup lang="ts">
import SliderField from '~/components/ui/SliderField.vue'
import { useStudioStore } from '~/stores/studio'

/** How dark or light a shape on a fill is. */
const { preferences } = useStudioStore()
const set = (v: number): void => void (preferences.fill.tone = v / 100)
</script>

<template>
  <div class="grid max-w-[500px] content-start gap-2">
    <b class="flex h-6 items-center font-[650]">Shade</b>
    <SliderField label="Tone" title="Below 0 darker than the fill, above 0 lighter" :value="Math.round(preferences.fill.tone * 100)" :min="-90" :max="90" :step="5" unit="%" @look="set" @keep="set" />
    <p class="quiet">{{ preferences.fill.tone < 0 ? 'The next shape is darker than its fill.' : 'The next shape is lighter than its fill.' }} Begin on a fill and go round what is to be shaded: the shape stays within its region, also when you mend its lines.</p>
  </div>
</template>
