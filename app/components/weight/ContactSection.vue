<script setup lang="ts">
import PercentField from '~/components/ui/PercentField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useStudioStore } from '~/stores/studio'
import TrialBar from './TrialBar.vue'

/** How ends are told apart and what they get. */
const { contact } = useStudioStore().preferences
</script>

<template>
  <div class="flex h-full flex-col gap-2">
    <TrialBar title="By contact" nothing="Free ends taper; ends that touch a line are full and tuck under it." />
    <div class="grid max-w-[860px] grid-cols-2 gap-x-10 gap-y-1.5">
      <SliderField
        label="Reach"
        title="An end this near to another line's ink meets it"
        :value="contact.reach"
        :min="0"
        :max="20"
        :step="0.5"
        :digits="1"
        unit="px"
        @look="(v) => (contact.reach = v)"
        @keep="(v) => (contact.reach = v)"
      />
      <PercentField v-model="contact.strength" label="Strength" />
      <SliderField
        label="Overshoot"
        title="An end that goes past a line by no more than this crosses it"
        :value="contact.overshoot"
        :min="0"
        :max="40"
        :step="1"
        unit="px"
        @look="(v) => (contact.overshoot = v)"
        @keep="(v) => (contact.overshoot = v)"
      />
      <SliderField
        label="Taper"
        title="Length of the taper of a free end"
        :value="contact.taper"
        :min="2"
        :max="50"
        :step="1"
        unit="%"
        @look="(v) => (contact.taper = v)"
        @keep="(v) => (contact.taper = v)"
      />
      <TickField v-model="contact.pinned" class="col-span-2"
        >Weigh pinned lines too, whose weight was set by hand</TickField
      >
    </div>
  </div>
</template>
