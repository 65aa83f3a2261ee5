<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import type { Line, Taper } from '#core/model/model'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { usePlaced } from '~/workspace/use-placed'

/** How the chosen lines, or the next one, run out at their ends: how long, to what width, and how. */
const ENDS = [
  { id: 'start', title: 'Start' },
  { id: 'end', title: 'End' },
] as const
type EndName = (typeof ENDS)[number]['id']

const EASES = [
  { id: 'straight', title: 'Straight', help: 'Narrows evenly' },
  { id: 'round', title: 'Round', help: 'Stays full, then closes fast' },
  { id: 'needle', title: 'Needle', help: 'Runs out long and fine' },
] as const

const UNITS = [
  { id: 'px', title: 'px' },
  { id: '%', title: '%' },
] as const

const USUAL: Taper = { length: 30, unit: '%', tip: 0, ease: 'round' }

const chosen = useChosenLines()
const store = useDrawingStore()
const studio = useStudioStore()
const open = computed(() => chosen.lines.value.filter((l) => !l.path.closed))
const forNext = computed(() => !chosen.lines.value.length)
const taperOf = (end: EndName): Taper | null =>
  forNext.value ? studio.preferences.tapers[end] : (open.value[0]?.weight[end] ?? null)

const changedBy = (taper: Taper | null, change: Partial<Taper> | null): Taper | null =>
  change && { ...(taper ?? USUAL), ...change }

/** Open lines with the taper at an end changed, or without it; what a hand sets is pinned. */
const withTaper =
  (end: EndName, change: Partial<Taper> | null) =>
  (line: Line): void => {
    if (!line.path.closed) Object.assign(line.weight, { [end]: changedBy(line.weight[end], change), pinned: true })
  }

function look(end: EndName, change: Partial<Taper>): void {
  if (!forNext.value) chosen.preview(withTaper(end, change))
}

function keep(end: EndName, change: Partial<Taper> | null): void {
  // While a slider is dragged the line shows what is not kept yet: it is put back first.
  store.drop()
  studio.preferences.tapers[end] = changedBy(taperOf(end), change)
  if (!forNext.value) chosen.change(change ? `Taper at the ${end}` : `No taper at the ${end}`, withTaper(end, change))
}

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <Popover class="relative">
    <PopoverButton
      ref="anchor"
      class="quiet"
      :disabled="!forNext && !open.length"
      :title="forNext ? 'How the ends of the next line run out' : 'How the ends of the line run out'"
      >Tapers</PopoverButton
    >
    <PopoverPanel
      ref="panel"
      :style="styles"
      class="pop grid w-[720px] grid-cols-2 max-md:w-[360px] max-md:grid-cols-1 gap-x-8 p-4"
    >
      <div
        v-for="{ id, title } in ENDS"
        :key="id"
        class="grid content-start gap-2"
        role="group"
        :aria-label="`Taper at the ${id}`"
      >
        <TickField :model-value="!!taperOf(id)" @update:model-value="(on) => keep(id, on ? USUAL : null)"
          ><b class="font-[650]">{{ title }}</b></TickField
        >
        <template v-if="taperOf(id)">
          <SliderField
            label="Length"
            :value="taperOf(id)!.length"
            :min="0"
            :max="taperOf(id)!.unit === '%' ? 100 : 300"
            :step="1"
            :unit="taperOf(id)!.unit"
            @look="(v) => look(id, { length: v })"
            @keep="(v) => keep(id, { length: v })"
          />
          <SliderField
            label="Tip"
            :value="Math.round(taperOf(id)!.tip * 100)"
            :min="0"
            :max="100"
            :step="1"
            unit="%"
            @look="(v) => look(id, { tip: v / 100 })"
            @keep="(v) => keep(id, { tip: v / 100 })"
          />
          <ChoiceField
            label="In"
            :choices="UNITS"
            :model-value="taperOf(id)!.unit"
            @update:model-value="(unit) => keep(id, { unit })"
          />
          <ChoiceField
            label="Ease"
            :choices="EASES"
            :model-value="taperOf(id)!.ease"
            @update:model-value="(ease) => keep(id, { ease })"
          />
        </template>
      </div>
    </PopoverPanel>
  </Popover>
</template>
