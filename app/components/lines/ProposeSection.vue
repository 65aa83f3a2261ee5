<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { layerForLine } from '#core/model/queries'
import { takeOffers } from '~/instruments/propose'
import { useDrawingStore } from '~/stores/drawing'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useProposalsStore } from '~/stores/proposals'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { useKeysStore } from '~/stores/keys'

/** Lines are found in the sketch, and shown as far as they are plain enough. */
const { preferences } = useStudioStore()
const keys = useKeysStore()
const proposals = useProposalsStore()
const view = useViewStore()
const store = useDrawingStore()
const hand = useInkInHand()
const studio = useStudioStore()

function takeAll(): void {
  const layer = layerForLine(store.drawing!, view.activeLayer)
  if (!layer) store.notice = 'No layer is open for lines. Add one with + in Layers, or unlock or show one.'
  takeOffers(
    {
      layerForInk: () => layer?.id ?? null,
      edit: store.edit,
      nextWeight: studio.nextWeight,
      nextInk: () => hand.lineInk,
      preferences: () => preferences,
      usualThickness: () => proposals.usual,
    },
    proposals.shown,
  )
}

const WEIGHTS = [
  { id: 'next', title: 'As the next line', help: 'Size and profile as set for new lines' },
  { id: 'pencil', title: 'As the pencil', help: 'It swells and thins as the pencil does' },
] as const

const busy = computed(() => view.work !== null)
const set = (change: Partial<typeof preferences.proposals>): void => void Object.assign(preferences.proposals, change)
</script>

<template>
  <div class="grid content-start gap-2">
    <template v-if="proposals.sketch">
      <div class="flex items-center gap-2.5">
        <button class="button-strong !py-1" :disabled="busy" data-testid="find-lines" @click="proposals.find()">
          {{ proposals.looked ? 'Find again' : 'Find lines' }}
        </button>
        <span v-if="proposals.looked" class="quiet" role="status" data-testid="proposals"
          ><span class="number">{{ proposals.shown.length }}</span> proposed<template
            v-if="proposals.all.length > proposals.shown.length"
            >, <span class="number">{{ proposals.all.length - proposals.shown.length }}</span> less plain</template
          ></span
        >
      </div>
      <SliderField
        label="Fainter too"
        title="The farther, the fainter a line may be that is found; find again"
        :value="Math.round(preferences.proposals.faint * 100)"
        :min="0"
        :max="100"
        :step="5"
        unit="%"
        @look="(v) => set({ faint: v / 100 })"
        @keep="(v) => set({ faint: v / 100 })"
      />
      <div class="flex items-center gap-3">
        <SliderField
          class="min-w-0 flex-1"
          label="Merge"
          title="Strokes no farther apart are one line; find again"
          :value="preferences.proposals.merge"
          :min="1"
          :max="9"
          :step="0.2"
          :digits="1"
          unit="px"
          @look="(v) => set({ merge: v, mergeBy: 'hand' })"
          @keep="(v) => set({ merge: v, mergeBy: 'hand' })"
        />
        <TickField
          :model-value="preferences.proposals.mergeBy === 'itself'"
          title="From the picture itself, place by place: how the strokes lie side by side"
          @update:model-value="(on) => set({ mergeBy: on ? 'itself' : 'hand' })"
          >by itself</TickField
        >
      </div>
    </template>
    <p v-else class="quiet">
      There is no sketch in sight. Bring one in under {{ keys.titled('Sketch', 'pass sketch') }}, or show its layer.
    </p>
  </div>
  <div v-if="proposals.looked" class="grid content-start gap-2">
    <SliderField
      label="Show from"
      title="How plain a line must be to be shown"
      :value="Math.round(preferences.proposals.from * 100)"
      :min="0"
      :max="95"
      :step="5"
      unit="%"
      @look="(v) => set({ from: v / 100 })"
      @keep="(v) => set({ from: v / 100 })"
    />
    <ChoiceField
      tight
      label="Weight"
      :choices="WEIGHTS"
      :model-value="preferences.proposals.weight"
      @update:model-value="(weight) => set({ weight })"
    />
    <p class="quiet">
      What you take is an ordinary line.
      <button
        v-if="proposals.shown.length"
        class="underline decoration-dotted hover:text-ink"
        data-testid="take-all"
        @click="takeAll"
      >
        Take all {{ proposals.shown.length }}
      </button>
    </p>
  </div>
</template>
