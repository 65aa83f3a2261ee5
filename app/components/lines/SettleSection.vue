<script setup lang="ts">
import TrialBar from '~/components/weight/TrialBar.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useClingStore } from '~/stores/cling'
import { useStudioStore } from '~/stores/studio'
import { useKeysStore } from '~/stores/keys'

/** Lines that are there are drawn onto the pencil beneath them. */
const { preferences } = useStudioStore()
const keys = useKeysStore()
const cling = useClingStore()
const set = (reach: number): void => void (preferences.cling.reach = reach)
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] content-start gap-2">
    <TrialBar
      title="Tried on"
      :nothing="
        !cling.sketch
          ? `There is no sketch in sight. Bring one in under ${keys.titled('Sketch', 'pass sketch')}.`
          : cling.busy
            ? 'Reads the sketch …'
            : 'Every line here lies on its pencil, or none is near enough.'
      "
    />
    <div class="max-w-[420px]">
      <SliderField
        label="Within"
        title="Pencil farther from a line draws nothing"
        :value="preferences.cling.reach"
        :min="2"
        :max="40"
        :step="1"
        unit="px"
        @look="set"
        @keep="set"
      />
    </div>
    <p class="quiet max-w-[640px]">
      The chosen lines, or all of them, are drawn onto the pencil beneath; their weights stay.
    </p>
  </div>
</template>
