<script setup lang="ts">
import SliderField from '~/components/ui/SliderField.vue'
import TrialBar from '~/components/weight/TrialBar.vue'
import { useStudioStore } from '~/stores/studio'

/** How shade and light on fills follow from the drawing's light. */
const { preferences } = useStudioStore()
const FIELDS = [
  { id: 'depth', label: 'Depth', title: 'How far in from the edge' },
  { id: 'softness', label: 'Turn', title: '0 follows the edge, 100 turns gently' },
  { id: 'shade', label: 'Shade', title: 'How dark the side away from the light is; 0 leaves it out' },
  { id: 'light', label: 'Light', title: 'How light the side towards the light is; 0 leaves it out' },
] as const
const set = (id: (typeof FIELDS)[number]['id'], v: number): void =>
  void (preferences.fill.lit = { ...preferences.fill.lit, [id]: v / 100 })
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] content-start gap-1">
    <TrialBar title="Glow" nothing="Pour a fill first: its shade follows from the light." />
    <div class="grid max-w-[420px] gap-0.5">
      <SliderField
        v-for="f in FIELDS"
        :key="f.id"
        :label="f.label"
        :title="f.title"
        :value="Math.round(preferences.fill.lit[f.id] * 100)"
        :min="0"
        :max="90"
        :step="5"
        unit="%"
        @look="(v) => set(f.id, v)"
        @keep="(v) => set(f.id, v)"
      />
    </div>
  </div>
</template>
