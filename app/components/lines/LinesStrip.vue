<script setup lang="ts">
import { sampleCount } from '#core/model/line-trace'
import { computed } from 'vue'
import { short } from '#core/geometry/path'
import { arcOf } from '~/instruments/line-marks'
import LoopField from './LoopField.vue'
import ClingMenu from './ClingMenu.vue'
import SnapMenu from './SnapMenu.vue'
import InkField from '~/components/ui/InkField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import TaperMenu from '~/components/weight/TaperMenu.vue'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { stripOf } from '~/components/strip-of'
import { instrumentOf } from '~/catalogue/instruments'

const studio = useStudioStore()
const view = useViewStore()
const chosen = useChosenLines()

const tool = computed(() => instrumentOf(view.instrument)!)
const strip = computed(() => stripOf(tool.value))
const one = computed(() => (chosen.lines.value.length === 1 && !view.setsNext ? chosen.lines.value[0]! : null))
const size = computed(() => chosen.lines.value[0]?.weight.size ?? studio.preferences.size)

const none = computed(() => !chosen.lines.value.length || view.setsNext)
const laying = computed(() => none.value && !!tool.value.lays)

const title = computed(() => {
  const n = view.setsNext ? 0 : chosen.lines.value.length
  if (!n && view.solids.length) return view.solids.length > 1 ? `${view.solids.length} shapes` : 'Shape'
  if (n > 1) return `${n} lines`
  if (one.value) return 'Line'
  return tool.value.speaksOf ?? 'Next line'
})

const facts = computed(() => {
  const line = one.value
  if (!line) return []
  const nodes = line.path.nodes.length
  return [
    `${short(arcOf(line).total, 0)} px long`,
    `${nodes} ${nodes === 1 ? 'node' : 'nodes'}`,
    line.path.closed ? 'closed' : 'open',
    ...(line.trace ? [`drawn with ${sampleCount(line.trace)} samples`] : []),
    ...(line.snips.length ? [`${line.snips.length} ${line.snips.length === 1 ? 'snip' : 'snips'}`] : []),
  ]
})

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
      <button
        v-if="view.setsNext"
        class="quiet min-h-6 underline decoration-dotted hover:text-ink"
        title="What is set here is for the next stroke. Click to change the last one"
        @click="view.laid = false"
      >
        Last stroke
      </button>
      <span v-for="f in facts" :key="f" class="quiet number">{{ f }}</span>
      <span class="ml-auto flex items-center gap-3.5">
        <LoopField v-if="view.instrument === 'freehand'" />
        <InkField />
        <TaperMenu v-if="laying || (none && view.instrument === 'freehand')" />
        <ClingMenu v-if="tool.snaps || view.instrument === 'freehand'" />
        <SnapMenu v-if="tool.snaps || tool.aligns" />
      </span>
    </div>
    <div v-if="!tool.wide" class="grid max-w-[860px] grid-cols-2 gap-x-10 gap-y-2.5">
      <SliderField
        v-if="tool.sized"
        label="Size"
        :value="size"
        :min="0.5"
        :max="40"
        :step="0.5"
        :digits="1"
        unit="px"
        @look="look"
        @keep="keep"
      />
      <component :is="strip" />
    </div>
    <component :is="strip" v-else />
    <p v-if="laying" class="quiet mt-auto max-w-[640px]">
      Lay a line over each pencil edge. The next line gets the weight used last:
      <b class="font-[650]" data-testid="next-weight">{{ studio.nextInWords }}</b>.
    </p>
  </div>
</template>
