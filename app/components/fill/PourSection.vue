<script setup lang="ts">
import { computed } from 'vue'
import { newId } from '#core/new-id'
import InkField from '~/components/ui/InkField.vue'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import TintSection from './TintSection.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

/** How far a pour goes: over which gaps, how far beneath the ink, into how small regions. */
const store = useDrawingStore()
const hand = useInkInHand()
const view = useViewStore()
const { preferences } = useStudioStore()

const DEEP = [
  { id: 'middle', title: 'To its middle', help: 'Never out on the other side' },
  { id: 'width', title: 'By a width' },
] as const
const deep = computed({
  get: () => (preferences.fill.under < 0 ? 'middle' : 'width'),
  set: (d: 'middle' | 'width') => (preferences.fill.under = d === 'middle' ? -1 : 0.3),
})

const ground = computed(() => store.drawing!.fills?.find((f) => f.where === 'page'))

/** The whole page in the ink in hand, beneath everything; taken away where it has that already. */
function lay(): void {
  const [ink, was] = [hand.id, ground.value]
  if (was?.ink === ink)
    store.edit('Take the ground away', (draft) => void (draft.fills = draft.fills?.filter((f) => f.id !== was.id)))
  else if (was) store.edit('Ground', (draft) => draft.fills?.forEach((f) => void (f.id === was.id && (f.ink = ink))))
  else
    store.edit(
      'Ground',
      (draft) =>
        void (draft.fills = [
          ...(draft.fills ?? []),
          { id: newId(), ink, where: 'page', at: { x: 0, y: 0 }, hold: [], gap: 0 },
        ]),
    )
}
</script>

<template>
  <div class="grid max-w-[500px] content-start gap-1.5">
    <div class="flex h-6 items-center justify-between gap-4">
      <b class="font-[650]">Pour</b>
      <InkField v-if="view.selection.length || view.solids.length" />
      <button class="button !py-0.5" title="The whole page in this ink, beneath everything" @click="lay">
        {{ ground?.ink === hand.id ? 'Take the ground away' : 'Lay a ground' }}
      </button>
    </div>
    <TintSection v-if="view.instrument === 'select'" />
    <SliderField
      label="Gaps up to"
      title="Gaps between an end and other ink are bridged; wider openings stay open"
      :value="preferences.fill.gap"
      :min="0"
      :max="3"
      :step="0.05"
      :digits="2"
      unit="mm"
      @look="(v) => (preferences.fill.gap = v)"
      @keep="(v) => (preferences.fill.gap = v)"
    />
    <SliderField
      label="Regions from"
      title="Flats pass over smaller ones: slits between two lines"
      :value="preferences.fill.least"
      :min="0"
      :max="10"
      :step="0.1"
      :digits="1"
      unit="mm²"
      @look="(v) => (preferences.fill.least = v)"
      @keep="(v) => (preferences.fill.least = v)"
    />
    <div class="flex items-center gap-3">
      <ChoiceField v-model="deep" label="Beneath the ink" :choices="DEEP" tight />
      <SliderField
        v-if="deep === 'width'"
        class="flex-1 [&>span:first-child]:hidden"
        label="Beneath"
        :value="preferences.fill.under"
        :min="0"
        :max="2"
        :step="0.05"
        :digits="2"
        unit="mm"
        @look="(v) => (preferences.fill.under = v)"
        @keep="(v) => (preferences.fill.under = v)"
      />
    </div>
    <TickField
      v-model="preferences.fill.clear"
      title="Ends that stick into the region beyond its lines are trimmed, and specks in it; Trim brings them back"
      >Clear away loose ends and specks</TickField
    >
  </div>
</template>
