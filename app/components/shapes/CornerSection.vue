<script setup lang="ts">
import { computed } from 'vue'
import type { Settings } from '#core/model/model'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'

/** How a click finishes a corner or an end, and how corners are about which nothing was decided. */
const { preferences } = useStudioStore()
const store = useDrawingStore()

const STYLES = [
  { id: 'pointed', title: 'Pointed', help: 'Both outer edges go on till they meet' },
  { id: 'rounded', title: 'Rounded', help: 'The outer edges are rounded off into each other' },
  { id: 'tucked', title: 'Tucked', help: 'One end lies behind the other' },
  { id: 'crossing', title: 'Crossing', help: 'Each goes on beyond the other' },
  { id: 'caps', title: 'As capped', help: 'As the caps of the lines are' },
] as const
const ENDS = [
  { id: 'in', title: 'Within', help: 'Nothing shows beyond the far edge, even where the end goes past it' },
  { id: 'out', title: 'Past', help: 'The end shows past its line' },
  { id: 'under', title: 'Beneath', help: 'The end lies beneath its line, whatever their order' },
  {
    id: 'over',
    title: 'Over one',
    help: 'Of several lines at one place: over the one nearest to the click, within the others',
  },
] as const
const USUAL = [
  { id: 'caps', title: 'As capped' },
  { id: 'pointed', title: 'Pointed' },
  { id: 'rounded', title: 'Rounded' },
] as const
const BEHIND = [
  { id: 'lower', title: 'Lower line behind' },
  { id: 'upper', title: 'Upper line behind' },
] as const

const usual = computed({
  get: () => store.drawing!.settings.corner ?? 'caps',
  set: (style: NonNullable<Settings['corner']>) =>
    store.edit(
      `Corners ${USUAL.find((u) => u.id === style)!.title.toLowerCase()}`,
      (draft) => void (draft.settings.corner = style),
    ),
})
const behind = computed({
  get: () => (preferences.corner.behind === 0 ? 'lower' : 'upper'),
  set: (b: 'lower' | 'upper') => (preferences.corner.behind = b === 'lower' ? 0 : 1),
})
</script>

<template>
  <div class="grid content-start gap-2">
    <b class="flex h-7 items-center font-[650]">Corner</b>
    <div class="flex flex-wrap items-center gap-x-8 gap-y-2">
      <ChoiceField v-model="preferences.corner.style" label="A corner is" :choices="STYLES" tight />
      <ChoiceField v-if="preferences.corner.style === 'tucked'" v-model="behind" label="" :choices="BEHIND" tight />
      <SliderField
        v-if="preferences.corner.style === 'pointed'"
        label="Limit"
        title="The point lies no farther off than so many half-widths; sharper corners are cut off"
        :value="preferences.corner.limit"
        :min="1"
        :max="20"
        :step="0.5"
        :digits="1"
        unit="x"
        @look="(v) => (preferences.corner.limit = v)"
        @keep="(v) => (preferences.corner.limit = v)"
      />
      <SliderField
        v-if="preferences.corner.style === 'crossing'"
        label="Goes on by"
        :value="preferences.corner.length"
        :min="0"
        :max="6"
        :step="0.25"
        :digits="2"
        unit="widths"
        @look="(v) => (preferences.corner.length = v)"
        @keep="(v) => (preferences.corner.length = v)"
      />
    </div>
    <div class="flex flex-wrap items-center gap-x-8 gap-y-2">
      <ChoiceField v-model="preferences.endChoice" label="An end is" :choices="ENDS" tight />
      <ChoiceField v-model="usual" label="All other corners" :choices="USUAL" tight />
    </div>
  </div>
</template>
