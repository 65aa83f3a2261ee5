<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { pressureDeviation } from '#core/fit/pressure-stops'
import { hasPressure } from '#core/fit/pressure-widths'
import SliderField from '~/components/ui/SliderField.vue'
import { useTracesStore } from '~/stores/traces'
import { useHand } from '~/workspace/use-hand'
import { usePlaced } from '~/workspace/use-placed'

/** How a drawn line's pressure becomes its profile; later, too. */
const hand = useHand()

const traces = useTracesStore()
const drawn = computed(() =>
  hand.traced.value.flatMap((line) => {
    const trace = traces.wholeOf(line)
    return trace && (hasPressure(trace) || trace.fromSpeed) ? [{ line, trace }] : []
  }),
)
const first = computed(() => drawn.value[0]?.line ?? null)
const any = computed(() => !!first.value)
const off = computed(() =>
  first.value ? pressureDeviation(drawn.value[0]!.trace, first.value.weight.unlit ?? first.value.weight.stops) : 0,
)
const tolerance = computed(() => Math.round((first.value?.trace?.widthTolerance ?? Math.max(0.01, off.value)) * 100))
const percent = (v: number): string => `${(v * 100).toFixed(1)} %`

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <Popover v-if="any" class="relative">
    <PopoverButton ref="anchor" class="quiet" title="How the pen's pressure became this profile"
      >Pressure</PopoverButton
    >
    <PopoverPanel ref="panel" v-if="first" :style="styles" class="pop grid w-[430px] gap-2 p-4">
      <p class="leading-[1.35]">
        <b class="number font-[650]">{{ first.weight.stops.length }} stops</b>, at most
        <b class="number font-[650]" data-testid="pressure-off">{{ percent(off) }}</b> of the size from the pen's
        pressure, which the graph shows in green.
      </p>
      <SliderField
        label="Tolerance"
        :value="tolerance"
        :min="1"
        :max="40"
        :step="1"
        unit="%"
        @look="(v) => hand.look({ widthTolerance: v / 100 })"
        @keep="(v) => hand.keep('Pressure: tolerance', { widthTolerance: v / 100 })"
      />
      <SliderField
        label="Response"
        title="Below 1 a light hand counts for more, above 1 for less"
        :value="hand.settings.value.response"
        :min="0.3"
        :max="3"
        :step="0.05"
        :digits="2"
        @look="(v) => hand.look({ response: v })"
        @keep="(v) => hand.keep('Pressure: response', { response: v })"
      />
      <SliderField
        label="Variation"
        :value="Math.round(hand.settings.value.variation * 100)"
        :min="0"
        :max="100"
        :step="5"
        unit="%"
        @look="(v) => hand.look({ variation: v / 100 })"
        @keep="(v) => hand.keep('Pressure: variation', { variation: v / 100 })"
      />
      <p class="quiet leading-[1.35]">
        A change here draws the profile anew: width stops that were set by hand are replaced.
      </p>
    </PopoverPanel>
  </Popover>
</template>
