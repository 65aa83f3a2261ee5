<script setup lang="ts">
import SliderField from '~/components/ui/SliderField.vue'
import TrialBar from '~/components/weight/TrialBar.vue'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

/** What a fence takes. */
const { preferences } = useStudioStore()
const view = useViewStore()
const most = (v: number): void => void (preferences.fenceWidths = v)
</script>

<template>
  <div class="flex h-full flex-col gap-2">
    <TrialBar
      title="Fence"
      :nothing="
        view.selection.length
          ? 'Nothing sticks out beyond the fence.'
          : 'Click one or more lines: beyond them nothing of other lines may stick out.'
      "
    />
    <div class="max-w-[430px]">
      <SliderField
        label="Up to"
        title="Longer pieces are taken for lines that are meant to cross"
        :value="preferences.fenceWidths"
        :min="0.5"
        :max="12"
        :step="0.5"
        :digits="1"
        unit="widths"
        @look="most"
        @keep="most"
      />
    </div>
    <p class="quiet max-w-[640px]">
      Pieces no longer than so many widths of their own line are proposed. They are trimmed when you accept, and come
      back with Trim.
    </p>
  </div>
</template>
