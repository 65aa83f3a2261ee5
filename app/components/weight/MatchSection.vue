<script setup lang="ts">
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useStudioStore } from '~/stores/studio'
import TrialBar from './TrialBar.vue'

/** Which lines give their weight across the axis, and how far apart two may lie. */
const SIDES = [
  { id: 'left', title: 'Left to right' },
  { id: 'right', title: 'Right to left' },
] as const

const { match } = useStudioStore().preferences
</script>

<template>
  <div class="flex h-full flex-col gap-2">
    <TrialBar
      title="Mirror match"
      nothing="Both sides of a body match: the lines on one side get the mirrored weights of the other."
    />
    <div class="grid max-w-[860px] grid-cols-2 gap-x-10 gap-y-1.5">
      <ChoiceField v-model="match.from" label="Weights go" :choices="SIDES" />
      <SliderField
        label="Apart"
        title="Mirrored onto each other, a pair lies no farther apart than this"
        :value="match.reach"
        :min="1"
        :max="60"
        :step="1"
        unit="px"
        @look="(v) => (match.reach = v)"
        @keep="(v) => (match.reach = v)"
      />
      <p class="quiet col-span-2">
        Thin strokes join the pairs. With lines chosen, these give their weights, whichever side they are on.
      </p>
    </div>
  </div>
</template>
