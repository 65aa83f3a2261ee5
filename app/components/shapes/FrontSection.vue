<script setup lang="ts">
import { computed, onScopeDispose, watch } from 'vue'
import { CASTS } from '#core/editing/fronts'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import NumberField from '~/components/ui/NumberField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useFrontsStore } from '~/stores/fronts'
import { useGlide } from '~/workspace/use-glide'

/** What lies in front: the walk through overlaps, what is sure, whether the order of layers and lines decides, and what a form throws. */

/** The view comes at least so near to an overlap. */
const NEAR = 1.6

const store = useDrawingStore()
const fronts = useFrontsStore()
const { show, back } = useGlide(NEAR)

const count = computed(() => fronts.overlaps.length)
const byOrder = computed({
  get: () => store.drawing!.settings.frontsByOrder === true,
  set: (on: boolean) =>
    store.edit(on ? 'Fronts by order' : 'Fronts as decided', (draft) => {
      if (on) draft.settings.frontsByOrder = true
      else delete draft.settings.frontsByOrder
    }),
})
function set(field: 'width' | 'gap' | 'taper', value: number): void {
  const { gap, width, taper } = fronts.cast!
  fronts.throws({ gap, width, taper, [field]: Math.max(0, value) })
}

const ANSWERS = [
  { which: 0, title: 'Plum in front', key: '←', swatch: 'bg-plum' },
  { which: 1, title: 'Green in front', key: '→', swatch: 'bg-moss' },
  { which: 'both', title: 'Both show', key: '↓', swatch: '' },
] as const

/** What a guess says, in words. */
const guess = computed(() => {
  const now = fronts.asked
  if (!now || now.guess === null) return 'Nothing here tells which lies in front.'
  const how = now.sure >= 0.8 ? 'very likely' : now.sure >= 0.5 ? 'likely' : 'perhaps'
  return `${how[0]!.toUpperCase()}${how.slice(1)} ${now.guess === 0 ? 'plum' : 'green'} lies in front.`
})

function forget(): void {
  store.edit(
    'Fronts taken back',
    (draft) => void (draft.amendments = draft.amendments?.filter((a) => a.kind !== 'front')),
  )
}

/** What the form in hand throws, in a word. */
const thrown = computed({
  get: () => (!fronts.cast ? 'nothing' : fronts.cast.gap > 0 ? 'line' : 'black'),
  set: (way: 'nothing' | 'line' | 'black') => fronts.throws(way === 'nothing' ? null : CASTS[way]),
})

watch(
  () => fronts.asked?.at,
  (at) => (at ? show(at) : back()),
)
onScopeDispose(fronts.end)
</script>

<template>
  <div class="grid max-w-[760px] content-start gap-2">
    <div class="flex h-7 items-center gap-5">
      <b class="font-[650]">Front</b>
      <span v-if="count" class="text-amber-deep" data-testid="overlaps"
        ><span class="number">{{ count }}</span> {{ count === 1 ? 'overlap' : 'overlaps' }} to decide</span
      >
      <span v-else class="quiet" data-testid="overlaps">No overlap is left to decide</span>
      <span v-if="fronts.decided" class="quiet"
        ><span class="number">{{ fronts.decided }}</span> decided</span
      >
    </div>
    <p v-if="!fronts.asked" class="quiet">
      Where two forms overlap, the one in front hides what of the other lies within it; that comes back as soon as one
      of them moves away. A form is what a closed line bounds, or several whose ends meet.
    </p>
    <p v-else class="flex flex-wrap items-center gap-2">
      <button
        v-for="a in ANSWERS"
        :key="a.which"
        class="button flex items-center gap-2 !py-0.5"
        :class="fronts.asked.guess === a.which ? 'border-plum font-[650]' : ''"
        @click="fronts.decide(a.which)"
      >
        <span v-if="a.swatch" class="h-3 w-3 rounded-full" :class="a.swatch" aria-hidden="true" />{{ a.title }}
        <kbd class="number quiet text-[11px]">{{ a.key }}</kbd>
      </button>
      <span class="quiet">{{ guess }}</span>
    </p>
    <p class="flex flex-wrap items-center gap-4">
      <button v-if="count" class="button !py-0.5" @click="fronts.step(1)">
        {{ fronts.asked ? 'The next' : count === 1 ? 'Look at it' : 'Go through them' }}
        <kbd class="number quiet text-[11px]">↑</kbd>
      </button>
      <button v-if="fronts.sure.length" class="button !py-0.5" @click="fronts.takeSure()">
        {{ fronts.sure.length === 1 ? 'Take the likely one' : `Take the ${fronts.sure.length} likely ones` }}
        <kbd class="number quiet text-[11px]">Enter</kbd>
      </button>
      <button v-if="fronts.decided" class="button !py-0.5" @click="forget">Take all back</button>
      <TickField
        v-model="byOrder"
        title="Of closed forms the upper one in the layers and lines lies in front; what you decide stands above it"
        >By order of layers and lines</TickField
      >
    </p>
    <div v-if="fronts.form && !fronts.asked" class="flex flex-wrap items-center gap-x-5 gap-y-2">
      <ChoiceField
        v-model="thrown"
        tight
        label="This form throws"
        :choices="[
          { id: 'nothing', title: 'Nothing' },
          { id: 'line', title: 'A thin line', help: 'Beside its edge, away from the light, on what lies behind it' },
          { id: 'black', title: 'Black', help: 'Along its edge, away from the light, on what lies behind it' },
        ]"
      />
      <template v-if="fronts.cast">
        <NumberField label="Wide" :value="fronts.cast.width" unit="mm" @keep="set('width', $event)" />
        <NumberField label="Off the edge" :value="fronts.cast.gap" unit="mm" @keep="set('gap', $event)" />
        <SliderField
          label="Thins"
          unit="%"
          :value="Math.round(fronts.cast.taper * 100)"
          :min="0"
          :max="100"
          :step="5"
          @keep="set('taper', $event / 100)"
        />
      </template>
    </div>
  </div>
</template>
