<script setup lang="ts">
import { computed } from 'vue'
import { FIGURES } from '#core/geometry/figures'
import { short } from '#core/geometry/path'
import { arcOf } from '~/instruments/line-marks'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

const JOINS = [
  { id: 'free', title: 'As laid', help: 'A click lays a corner, a drag a curve' },
  { id: 'smooth', title: 'Smoothly', help: 'Clicked points lie on one smooth curve' },
  { id: 'straight', title: 'Straight', help: 'All segments are straight' },
] as const

const KINDS = FIGURES.map((id) => ({ id, title: id[0]!.toUpperCase() + id.slice(1) }))

const studio = useStudioStore()
const view = useViewStore()
const chosen = useChosenLines()

const one = computed(() => (chosen.lines.value.length === 1 ? chosen.lines.value[0]! : null))
const size = computed(() => chosen.lines.value[0]?.weight.size ?? studio.preferences.size)

const title = computed(() => {
  const n = chosen.lines.value.length
  if (n > 1) return `${n} lines`
  return one.value ? 'Line' : 'Next line'
})

const facts = computed(() => {
  const line = one.value
  if (!line) return []
  const nodes = line.path.nodes.length
  return [`${short(arcOf(line).total, 0)} px long`, `${nodes} ${nodes === 1 ? 'node' : 'nodes'}`, line.path.closed ? 'closed' : 'open', ...(line.trace ? [`drawn with ${line.trace.samples.length} samples`] : [])]
})

/** Only a closed line has an inside that can cover. */
const closedLines = computed(() => chosen.lines.value.filter((l) => l.path.closed))

function setCover(cover: boolean): void {
  chosen.change(cover ? 'Cover what lies behind' : 'Cover nothing', (l) => {
    if (l.path.closed) l.cover = cover
  })
}

function look(value: number): void {
  if (chosen.lines.value.length) chosen.preview((l) => void (l.weight.size = value))
  else studio.preferences.size = value
}

function keep(value: number): void {
  studio.preferences.size = value
  if (!chosen.lines.value.length) return
  chosen.preview((l) => void (l.weight.size = value))
  chosen.finish(`Size ${short(value, 1)} px`)
}
</script>

<template>
  <div class="flex h-full flex-col gap-3">
    <div class="flex h-6 items-center gap-3.5">
      <b class="font-[650]">{{ title }}</b>
      <span v-for="f in facts" :key="f" class="quiet number">{{ f }}</span>
    </div>
    <div class="grid max-w-[820px] grid-cols-2 gap-x-10 gap-y-2.5">
      <SliderField label="Size" :value="size" :min="0.5" :max="40" :step="0.5" :digits="1" unit="px" @look="look" @keep="keep" />
      <SliderField
        v-if="view.instrument === 'freehand'"
        label="Steadiness"
        :value="Math.round(studio.preferences.steadiness * 100)"
        :min="0"
        :max="100"
        :step="5"
        unit="%"
        @look="(v) => (studio.preferences.steadiness = v / 100)"
        @keep="(v) => (studio.preferences.steadiness = v / 100)"
      />
      <label v-if="view.instrument === 'freehand'" class="flex items-center gap-2.5">
        <input v-model="studio.preferences.pressure" type="checkbox" class="h-4 w-4 accent-plum" />
        Pressure makes the width, where the pen has it
      </label>
      <ChoiceField v-if="view.instrument === 'pen'" v-model="studio.preferences.penJoins" label="Clicks join" :choices="JOINS" />
      <template v-if="view.instrument === 'figure'">
        <ChoiceField v-model="studio.preferences.figure.kind" label="Figure" :choices="KINDS" class="col-span-2" />
        <SliderField
          v-if="studio.preferences.figure.kind === 'polygon' || studio.preferences.figure.kind === 'star'"
          :label="studio.preferences.figure.kind === 'star' ? 'Points' : 'Sides'"
          :value="studio.preferences.figure.sides"
          :min="3"
          :max="24"
          :step="1"
          @look="(v) => (studio.preferences.figure.sides = v)"
          @keep="(v) => (studio.preferences.figure.sides = Math.round(v))"
        />
        <SliderField
          v-if="studio.preferences.figure.kind === 'star'"
          label="Inner points"
          :value="Math.round(studio.preferences.figure.depth * 100)"
          :min="10"
          :max="95"
          :step="5"
          unit="%"
          @look="(v) => (studio.preferences.figure.depth = v / 100)"
          @keep="(v) => (studio.preferences.figure.depth = v / 100)"
        />
        <SliderField
          v-if="studio.preferences.figure.kind === 'spiral'"
          label="Turns"
          :value="studio.preferences.figure.turns"
          :min="0.5"
          :max="12"
          :step="0.25"
          :digits="2"
          @look="(v) => (studio.preferences.figure.turns = v)"
          @keep="(v) => (studio.preferences.figure.turns = v)"
        />
      </template>
      <label v-if="closedLines.length" class="flex items-center gap-2.5">
        <input type="checkbox" class="h-4 w-4 accent-plum" :checked="closedLines.every((l) => l.cover)" @change="setCover(($event.target as HTMLInputElement).checked)" />
        Covers what lies behind it
      </label>
      <label v-if="view.instrument === 'bow'" class="flex items-center gap-2.5">
        <input v-model="studio.preferences.bowsJoin" type="checkbox" class="h-4 w-4 accent-plum" />
        A bow goes on smoothly from the one before
      </label>
    </div>
    <p v-if="!chosen.lines.value.length" class="quiet mt-auto max-w-[640px]">
      Lay a line over each pencil edge. What you set here and the profile in the tray go with the next line.
    </p>
  </div>
</template>
