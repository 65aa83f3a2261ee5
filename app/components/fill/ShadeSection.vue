<script setup lang="ts">
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useStudioStore } from '~/stores/studio'

/** How a shape on a fill is laid, and how dark or light it is. */
const { preferences } = useStudioStore()
const WAYS = [
  { id: 'round', title: 'Round it', help: 'Drag round what is to be shaded' },
  { id: 'brush', title: 'Brush', help: 'Paint what is to be shaded' },
] as const
const setTone = (v: number): void => void (preferences.fill.tone = v / 100)
const setWidth = (v: number): void => void (preferences.shade.width = v)
</script>

<template>
  <div class="grid max-w-[500px] content-start gap-2">
    <b class="flex h-6 items-center font-[650]">Shade</b>
    <ChoiceField v-model="preferences.shade.by" label="Laid by" :choices="WAYS" />
    <SliderField
      v-if="preferences.shade.by === 'brush'"
      label="Width"
      :value="preferences.shade.width"
      :min="1"
      :max="120"
      :step="1"
      unit="px"
      @look="setWidth"
      @keep="setWidth"
    />
    <SliderField
      label="Tone"
      title="Below 0 darker than the fill, above 0 lighter"
      :value="Math.round(preferences.fill.tone * 100)"
      :min="-90"
      :max="90"
      :step="5"
      unit="%"
      @look="setTone"
      @keep="setTone"
    />
    <p class="quiet">
      {{
        preferences.fill.tone < 0
          ? 'The next shape is darker than its fill.'
          : 'The next shape is lighter than its fill.'
      }}
      Begin on a fill: the shape stays within its region, also when you mend its lines. A click on a closed line makes
      shade of it.
    </p>
  </div>
</template>
