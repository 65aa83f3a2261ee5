<script setup lang="ts">
import { computed } from 'vue'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { short } from '#core/geometry/path'
import type { HandSettings } from '#core/fit/redraw-trace'
import { MOST_CONTRAST, ratioOf } from '#core/weight/nibs'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { useHand } from '~/workspace/use-hand'
import { useStudioStore } from '~/stores/studio'
import NibPicker from './NibPicker.vue'
import ResponseCurve from './ResponseCurve.vue'
import { usePlaced } from '~/workspace/use-placed'

const CURVES = [
  { id: 'soft', title: 'Soft', exponent: 0.6 },
  { id: 'even', title: 'Even', exponent: 1 },
  { id: 'firm', title: 'Firm', exponent: 1.7 },
] as const

const studio = useStudioStore()
const chosen = useChosenLines()
const hand = useHand()
const now = hand.settings

/** The nib is of the lines to come; chosen lines that keep a trace have their size and variation of their own. */
const onLines = computed(() => hand.traced.value.length > 0)
const size = computed(() => (onLines.value ? hand.traced.value[0]!.weight.size : studio.preferences.size))

function setSize(size: number, keep: boolean): void {
  if (!onLines.value) {
    studio.takeSize(size)
    return
  }
  chosen.preview((l) => void (l.weight.size = size))
  if (keep) chosen.finish(`Size ${short(size, 1)} px`)
}

function setVariation(variation: number, keep: boolean): void {
  set({ variation }, keep ? 'Variation' : null)
}

/** Shows a setting, or with a label keeps it. */
function set(patch: HandSettings, label: string | null): void {
  if (label) void hand.keep(label, patch)
  else hand.look(patch)
}

const ratio = computed(() => (now.value.variation >= 1 ? '1 : 0' : `${short(ratioOf(now.value.variation), 1)} : 1`))
const contrast = computed(() => now.value.variation > MOST_CONTRAST)
const curve = computed(
  () =>
    CURVES.find(
      (c) => Math.abs(c.exponent - now.value.response) < 0.01 && now.value.least === 0 && now.value.most === 1,
    )?.id ?? 'own',
)

const tick = (key: 'squared' | 'fromSpeed', label: string) =>
  computed({ get: () => now.value[key], set: (v: boolean) => set({ [key]: v }, label) })
const squared = tick('squared', 'Square up')
const fromSpeed = tick('fromSpeed', 'Width from speed')

const { anchor, panel, styles } = usePlaced('top-start')
</script>

<template>
  <div
    class="hand grid grid-cols-[minmax(0,190px)_minmax(0,206px)_auto] gap-x-4 xl:grid-cols-[minmax(0,300px)_minmax(0,296px)_1fr] xl:gap-x-7"
  >
    <div class="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-1.5">
      <div v-if="!onLines" class="flex items-center gap-1">
        <NibPicker class="min-w-0 flex-1" />
      </div>
      <SliderField
        label="Size"
        :value="size"
        :min="0.25"
        :max="40"
        :step="0.25"
        :digits="2"
        unit="px"
        @look="(v) => setSize(v, false)"
        @keep="(v) => setSize(v, true)"
      />
      <SliderField
        label="Variation"
        :value="Math.round(now.variation * 100)"
        :min="0"
        :max="100"
        :step="1"
        unit="%"
        @look="(v) => setVariation(v / 100, false)"
        @keep="(v) => setVariation(v / 100, true)"
      />
      <p class="flex items-center gap-3 text-[12px] xl:ml-[106px]">
        <span class="quiet"
          >wide to thin <span class="number text-ink">{{ ratio }}</span></span
        >
        <Popover v-if="!onLines" class="relative">
          <PopoverButton
            ref="anchor"
            class="min-h-6 underline decoration-dotted hover:text-plum"
            title="How round the nib is and how it is turned"
            >Nib shape …</PopoverButton
          >
          <PopoverPanel ref="panel" :style="styles" class="pop grid w-[330px] gap-2 p-4">
            <SliderField
              label="Roundness"
              :value="Math.round(studio.nib.roundness * 100)"
              :min="5"
              :max="100"
              :step="1"
              unit="%"
              @look="(v) => studio.setPoint({ roundness: v / 100 })"
              @keep="(v) => studio.setPoint({ roundness: v / 100 })"
            />
            <SliderField
              label="Angle"
              :value="studio.nib.angle"
              :min="-90"
              :max="90"
              :step="0.5"
              :digits="1"
              unit="°"
              :disabled="studio.nib.roundness >= 1"
              @look="(v) => studio.setPoint({ angle: v })"
              @keep="(v) => studio.setPoint({ angle: v })"
            />
            <p class="quiet text-[12px]" data-testid="nib-shapes">
              {{
                studio.nib.roundness < 1
                  ? 'Lines of Pen, Bow and Figure are shaped by this nib too.'
                  : 'A round nib does not shape lines of Pen, Bow and Figure: they have their profile alone.'
              }}
            </p>
          </PopoverPanel>
        </Popover>
      </p>
      <p v-if="contrast" class="text-[12px] text-amber-deep" role="status">
        Past two thirds a line stops looking drawn.
      </p>
    </div>
    <div class="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-1.5">
      <SliderField
        label="Steadiness"
        :value="Math.round(now.steadiness * 100)"
        :min="0"
        :max="100"
        :step="5"
        unit="%"
        @look="(v) => set({ steadiness: v / 100 }, null)"
        @keep="(v) => set({ steadiness: v / 100 }, 'Steadiness')"
      />
      <SliderField
        label="Unevenness"
        :value="Math.round(now.unevenness * 100)"
        :min="0"
        :max="60"
        :step="1"
        unit="%"
        @look="(v) => set({ unevenness: v / 100 }, null)"
        @keep="(v) => set({ unevenness: v / 100 }, 'Unevenness')"
      />
      <TickField v-model="squared" title="Near-straight runs become straight, and turns corners">Square up</TickField>
      <TickField v-model="fromSpeed" title="Where there is no pressure, the speed of the hand makes the width"
        >Speed makes the width</TickField
      >
    </div>
    <div class="flex gap-3">
      <div class="grid content-start gap-1">
        <ResponseCurve
          :exponent="now.response"
          :least="now.least"
          :most="now.most"
          @look="(p) => set(p, null)"
          @keep="(p) => set(p, 'Pressure curve')"
        />
        <TickField v-if="!onLines" v-model="studio.preferences.pressure">Pressure makes the width</TickField>
      </div>
      <div class="grid content-start gap-1" role="group" aria-label="Pressure curve">
        <span class="quiet text-[12px]">Touch</span>
        <button
          v-for="c in CURVES"
          :key="c.id"
          class="button !px-2.5 !py-px text-left"
          :class="curve === c.id ? '!border-plum text-plum' : ''"
          :aria-pressed="curve === c.id"
          @click="set({ response: c.exponent, least: 0, most: 1 }, 'Pressure curve')"
        >
          {{ c.title }}
        </button>
        <span v-if="curve === 'own'" class="text-[12px] text-plum">Own</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
/* In a narrow window the numbers stay and the sliders go: nothing is cut off. */
@media (width < 80rem) {
  .hand :deep(input[type='range']) {
    display: none;
  }

  .hand :deep(label > span:first-child) {
    width: auto;
    margin-right: auto;
  }
}
</style>
