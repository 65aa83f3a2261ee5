<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Line, Weight, WidthStop } from '#core/model/model'
import { scaledStretch } from '#core/weight/stretch'
import { addStopBeside, slideStop, widenStop } from '#core/weight/stops'
import { changeStops, removalOf } from '~/instruments/chosen-stops'
import NumberField from '~/components/ui/NumberField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines } from '#core/editing/change-items'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

/** The chosen width stops in numbers, and how the graph is read. */
const props = defineProps<{ line: Line }>()

const store = useDrawingStore()
const studio = useStudioStore()
const view = useViewStore()
const root = ref<HTMLElement>()

const half = computed(() => props.line.weight.size / 2 || 1)
const stop = computed<WidthStop | null>(() =>
  view.stop?.line === props.line.id ? (props.line.weight.stops[view.stop.index] ?? null) : null,
)
const many = computed(() => view.stops.length > 1)

/** Each chosen stop put through `set`, in one step. */
function change(label: string, set: (weight: Weight, index: number) => Weight): void {
  store.edit(label, (draft) => changeStops(draft, view.stops, (weight, indices) => [...indices].reduce(set, weight)))
}

const factor = ({ size }: Weight, px: number): number => Math.max(0, px) / (size / 2 || 1)
const setWidth = (px: number): void => change('Width of a stop', (w, i) => widenStop(w, i, 'both', factor(w, px / 2)))
const setSide = (side: 'left' | 'right', px: number): void =>
  change(`Width to the ${side}`, (w, i) => widenStop(w, i, side, factor(w, px)))
const setPlace = (percent: number): void => change('Place of a stop', (w, i) => slideStop(w, i, percent / 100))

/** The marked stretch, where it is of this line. */
const stretch = computed(() => (view.stretch?.line === props.line.id ? view.stretch : null))

/** All of the stretch so much wider, per cent of what it is. */
function weigh(percent: number): void {
  const { id, weight, path } = props.line
  const soft = studio.preferences.swellReach
  const weighed = scaledStretch(weight, stretch.value!, Math.max(0, percent) / 100, soft, path.closed)
  store.edit('Weigh a stretch', (draft) => void changeLines(draft, [id], (l) => void (l.weight = weighed)))
}

/** A stop beside the chosen one, or in the line's first gap; it is chosen, so that the arrow keys can take it on. */
function add(): void {
  const { weight, index } = addStopBeside(props.line.weight, view.stop?.index ?? 0, props.line.path.closed)
  store.edit('Add a width stop', (draft) => void changeLines(draft, [props.line.id], (l) => void (l.weight = weight)))
  view.stop = { line: props.line.id, index }
}

function remove(): void {
  const { label, recipe } = removalOf(view.stops)
  store.edit(label, recipe)
  view.stops = []
}

// The canvas asks for the width to be typed.
watch(
  () => view.asked,
  async () => {
    await nextTick()
    root.value?.querySelector<HTMLInputElement>('input')?.select()
    root.value?.querySelector<HTMLInputElement>('input')?.focus()
  },
)
</script>

<template>
  <div ref="root" class="stop-fields flex flex-col gap-px text-[12px]" data-testid="stop-fields">
    <div v-if="stop" class="grid grid-cols-[auto_auto] justify-between gap-y-1">
      <NumberField
        :label="many ? `${view.stops.length} stops` : 'Width'"
        :value="(stop.left + stop.right) * half"
        unit="px"
        @keep="setWidth"
      />
      <NumberField label="At" :value="many ? null : stop.at * 100" unit="%" @keep="setPlace" />
      <NumberField label="Left" :value="stop.left * half" unit="px" @keep="(v) => setSide('left', v)" />
      <NumberField label="Right" :value="stop.right * half" unit="px" @keep="(v) => setSide('right', v)" />
    </div>
    <template v-else>
      <NumberField v-if="stretch" label="Stretch" :value="100" unit="%" :digits="0" @keep="weigh" />
      <p v-else class="quiet leading-[1.3]">Drag the ribbon for a new stop. The wheel zooms along the line.</p>
      <NumberField
        label="It reaches"
        :value="studio.preferences.swellReach * 100"
        unit="%"
        title="How softly a stretch ends, and how far a new stop widens the line on either side, as a share of its length; beyond, the width stays. 0: up to the next stops"
        data-testid="swell-reach"
        @keep="(v) => (studio.preferences.swellReach = Math.min(0.5, Math.max(0, v / 100)))"
      />
    </template>
    <div class="mt-auto flex items-center gap-3">
      <button class="quiet" title="Add a width stop beside the chosen one" @click="add">Add stop</button>
      <button class="quiet" :disabled="!stop" title="Remove the chosen stops (Delete)" @click="remove">Remove</button>
    </div>
    <button
      v-if="view.instrument === 'select'"
      class="quiet text-left"
      :aria-pressed="studio.preferences.scaleWeights"
      title="When a corner of the frame is dragged"
      @click="studio.preferences.scaleWeights = !studio.preferences.scaleWeights"
    >
      {{ studio.preferences.scaleWeights ? 'Scaling: weights too' : 'Scaling: weights stay' }}
    </button>
    <div class="flex items-center gap-3">
      <button
        class="quiet"
        :aria-pressed="studio.preferences.sidesLinked"
        title="Whether a drag changes both sides; Alt does the other"
        @click="studio.preferences.sidesLinked = !studio.preferences.sidesLinked"
      >
        {{ studio.preferences.sidesLinked ? 'Sides linked' : 'Sides apart' }}
      </button>
      <button
        class="quiet"
        title="What the graph measures in"
        @click="studio.preferences.graphIn = studio.preferences.graphIn === 'px' ? 'share' : 'px'"
      >
        {{ studio.preferences.graphIn === 'px' ? 'in px' : 'in shares' }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.stop-fields :deep(label) {
  justify-content: flex-end;
  gap: 4px;
}

.stop-fields :deep(label > span:first-child) {
  margin-right: auto;
  color: var(--color-mute-deep);
}

.stop-fields :deep(input) {
  width: 52px;
  padding: 0 5px;
  height: 24px;
}

.stop-fields :deep(label > span:last-child) {
  width: 15px;
}
</style>
