<script setup lang="ts">
import { sampleCount } from '#core/drawing/line-trace'
import { computed } from 'vue'
import { short } from '#core/geometry/path'
import { arcOf } from '~/instruments/line-marks'
import HandSection from './HandSection.vue'
import PracticeSection from './PracticeSection.vue'
import FigureSection from './FigureSection.vue'
import NodesSection from './NodesSection.vue'
import SelectSection from './SelectSection.vue'
import SnapMenu from './SnapMenu.vue'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import TaperMenu from '~/components/weight/TaperMenu.vue'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

const JOINS = [
  { id: 'free', title: 'As laid', help: 'A click lays a corner, a drag a curve' },
  { id: 'smooth', title: 'Smoothly', help: 'Clicked points lie on one smooth curve' },
  { id: 'straight', title: 'Straight', help: 'All segments are straight' },
] as const

const studio = useStudioStore()
const view = useViewStore()
const chosen = useChosenLines()

/** Instruments that lay the next line by the size set here. */
const LAYING = ['select', 'pen', 'bow', 'figure']
/** Instruments that have no use for a size. */
const SIZELESS = ['snip', 'practice', 'blot', 'scrape']
/** Instruments that draw points to places. */
const SNAPPING = ['pen', 'bow', 'figure', 'nodes']

/** Instruments that lay no line. */
const BRUSHES: Record<string, string> = { snip: 'Snip', blot: 'Blot', scrape: 'Scrape' }

/** What the strip speaks of where no line is chosen and none is laid. */
const LAYS: Record<string, string> = { nodes: 'Nodes', practice: 'Practice' }

const one = computed(() => (chosen.lines.value.length === 1 ? chosen.lines.value[0]! : null))
const size = computed(() => chosen.lines.value[0]?.weight.size ?? studio.preferences.size)

const none = computed(() => !chosen.lines.value.length)
const laying = computed(() => none.value && LAYING.includes(view.instrument))

const title = computed(() => {
  const n = chosen.lines.value.length
  if (!n && view.solids.length) return view.solids.length > 1 ? `${view.solids.length} shapes` : 'Shape'
  if (BRUSHES[view.instrument] && !n) return BRUSHES[view.instrument]!
  if (n > 1) return `${n} lines`
  if (one.value) return 'Line'
  return LAYS[view.instrument] ?? 'Next line'
})

const facts = computed(() => {
  const line = one.value
  if (!line) return []
  const nodes = line.path.nodes.length
  return [`${short(arcOf(line).total, 0)} px long`, `${nodes} ${nodes === 1 ? 'node' : 'nodes'}`, line.path.closed ? 'closed' : 'open', ...(line.trace ? [`drawn with ${sampleCount(line.trace)} samples`] : []), ...(line.snips.length ? [`${line.snips.length} ${line.snips.length === 1 ? 'snip' : 'snips'}`] : [])]
})

const BEND_CHOICES = [
  { id: 'arc', title: 'A circle', help: 'The bow is a part of a circle' },
  { id: 'rod', title: 'A rod', help: 'The bow bends most in its middle, like a thin rod pressed together at its ends' },
] as const

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
  <div class="flex h-full flex-col gap-2.5">
    <div class="flex h-7 items-center gap-3.5">
      <b class="font-[650]">{{ title }}</b>
      <span v-for="f in facts" :key="f" class="quiet number">{{ f }}</span>
      <span class="ml-auto flex items-center gap-3.5">
        <TaperMenu v-if="laying || (none && view.instrument === 'freehand')" />
        <SnapMenu v-if="SNAPPING.includes(view.instrument)" />
      </span>
    </div>
    <NodesSection v-if="view.instrument === 'nodes'" />
    <HandSection v-else-if="view.instrument === 'freehand'" />
    <div v-else class="grid max-w-[860px] grid-cols-2 gap-x-10 gap-y-2.5">
      <SliderField v-if="!SIZELESS.includes(view.instrument)" label="Size" :value="size" :min="0.5" :max="40" :step="0.5" :digits="1" unit="px" @look="look" @keep="keep" />
      <SelectSection v-if="view.instrument === 'select'" />
      <ChoiceField v-if="view.instrument === 'pen'" v-model="studio.preferences.penJoins" label="Clicks join" :choices="JOINS" />
      <FigureSection v-if="view.instrument === 'figure'" />
      <ChoiceField v-if="view.instrument === 'bow'" v-model="studio.preferences.bend" label="Bends like" :choices="BEND_CHOICES" />
      <TickField v-if="view.instrument === 'bow'" v-model="studio.preferences.bowsJoin">A bow goes on smoothly from the one before</TickField>
      <template v-if="view.instrument === 'blot'">
        <SliderField label="Width" :value="studio.preferences.blotSize" :min="1" :max="120" :step="1" unit="px" @look="(v) => (studio.preferences.blotSize = v)" @keep="(v) => (studio.preferences.blotSize = v)" />
        <TickField v-model="studio.preferences.blotMerges">Becomes one with shapes of its ink that it touches</TickField>
      </template>
      <template v-if="view.instrument === 'scrape'">
        <SliderField label="Width" :value="studio.preferences.scrapeSize" :min="1" :max="120" :step="1" unit="px" @look="(v) => (studio.preferences.scrapeSize = v)" @keep="(v) => (studio.preferences.scrapeSize = v)" />
        <p class="quiet">Only chosen shapes and lines are scraped. A line keeps its path: with Select, its scrapings can be taken back.</p>
      </template>
      <PracticeSection v-if="view.instrument === 'practice'" />
      <p v-if="view.instrument === 'snip'" class="quiet col-span-2 max-w-[640px]">A snip hides the part of a line beyond a crossing. The line itself stays whole: click a hidden part to bring it back, and move either line as you like, the snip follows the crossing.</p>
    </div>
    <p v-if="laying" class="quiet mt-auto max-w-[640px]">
      Lay a line over each pencil edge. The next line gets the weight used last: <b class="font-[650]" data-testid="next-weight">{{ studio.nextInWords }}</b>.
    </p>
  </div>
</template>
