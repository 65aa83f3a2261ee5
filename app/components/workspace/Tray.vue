<script setup lang="ts">
import type { Component } from 'vue'
import { computed } from 'vue'
import { BowArrow, CircleDot, Diamond, Droplet, FlipHorizontal2, Move, PaintRoller, PencilLine, PocketKnife, Shapes, MousePointer2, ScanSearch, Scissors, Signature, Spline, Sun, Tablet, UnfoldVertical } from 'lucide-vue-next'
import { TRAY, TRAY_KEYS, useViewStore } from '~/stores/view'
import ProfileShelf from '~/components/weight/ProfileShelf.vue'

const view = useViewStore()

const LOOKS: Record<string, { title: string; icon: Component; help: string }> = {
  select: { title: 'Select', icon: MousePointer2, help: 'choose lines, move, scale, turn and delete them' },
  pen: { title: 'Pen', icon: Spline, help: 'lay a line node by node' },
  bow: { title: 'Bow', icon: BowArrow, help: 'draw a straight chord, then pull it into a bow' },
  freehand: { title: 'Freehand', icon: Signature, help: 'just draw; the line comes out smooth' },
  nodes: { title: 'Nodes', icon: Diamond, help: 'move the nodes and handles of a line' },
  figure: { title: 'Figure', icon: Shapes, help: 'ellipses, polygons, stars, spirals' },
  practice: { title: 'Practice', icon: Tablet, help: 'a recorded pen plays a stroke with real pressure' },
  blot: { title: 'Blot', icon: Droplet, help: 'a brush that paints a solid shape' },
  scrape: { title: 'Scrape', icon: PocketKnife, help: 'an eraser that carves ink away' },
  snip: { title: 'Snip', icon: Scissors, help: 'hide the part of a line beyond a crossing' },
  caliper: { title: 'Caliper', icon: UnfoldVertical, help: 'pull a line wider or thinner where you like' },
  contact: { title: 'Contact', icon: CircleDot, help: 'taper ends in the open, fill those that meet a line' },
  light: { title: 'Light', icon: Sun, help: 'thin edges towards a light, thick ones away from it' },
  sweep: { title: 'Sweep', icon: PaintRoller, help: 'paint a copied weight on other lines' },
  match: { title: 'Match', icon: FlipHorizontal2, help: 'give both sides of a body the same weights' },
  place: { title: 'Place', icon: Move, help: 'move, scale and turn the sketch' },
  outline: { title: 'Retouch', icon: PencilLine, help: 'move single nodes of an outline' },
  inspect: { title: 'Inspect', icon: ScanSearch, help: 'see a shape and its nodes' },
}

/** Rows of six at most; where there are two, the second one's keys are those of the first with Shift. */
const rows = computed(() => {
  const all = TRAY[view.pass].map((id, i) => ({ id, ...keyAt(i), ...LOOKS[id]! }))
  return [all.slice(0, TRAY_KEYS.length), all.slice(TRAY_KEYS.length)].filter((r) => r.length)
})

function keyAt(i: number): { key: string; spoken: string } {
  const key = TRAY_KEYS[i % TRAY_KEYS.length]!.toUpperCase()
  return { key, spoken: i < TRAY_KEYS.length ? key : `Shift+${key}` }
}
</script>

<template>
  <div class="flex h-full w-[314px] shrink-0 flex-col border-r border-hair px-2 py-2.5" data-testid="tray">
    <div class="grid gap-1" role="toolbar" aria-label="Instruments">
      <div v-for="(row, i) in rows" :key="row[0]!.id" class="grid grid-cols-6 gap-[3px]" :class="rows.length > 1 ? 'h-[39px]' : 'h-[58px]'">
        <button
          v-for="tool in row"
          :key="tool.id"
          class="relative flex flex-col items-center justify-center rounded-[10px] border tracking-[-0.015em]"
          :class="[view.instrument === tool.id ? 'border-plum bg-plum text-white' : 'border-hair bg-raise hover:border-mute', rows.length > 1 ? 'gap-px pt-0.5 text-[11px] tracking-[-0.03em]' : 'gap-[3px] text-[12px]']"
          :aria-pressed="view.instrument === tool.id"
          :title="`${tool.title}: ${tool.help} (${tool.spoken})`"
          @click="view.chosen[view.pass] = tool.id"
        >
          <kbd class="number absolute top-px right-1 text-[9.5px] font-semibold" :class="view.instrument === tool.id ? 'text-[#f4d4e4]' : 'text-mute'">{{ tool.key }}</kbd>
          <component :is="tool.icon" :size="rows.length > 1 ? 15 : 17" :stroke-width="1.7" />
          <span>{{ tool.title }}</span>
        </button>
        <span v-if="i > 0 && row.length < TRAY_KEYS.length" class="quiet self-center pl-1.5 text-[11px] leading-[1.25]" :style="{ gridColumn: `span ${TRAY_KEYS.length - row.length}` }">this row: hold Shift with the key</span>
      </div>
    </div>
    <ProfileShelf v-if="view.pass === 'weight' || view.pass === 'lines'" class="mt-2" />
    <p class="quiet mt-auto text-[12px] leading-4" aria-live="polite" data-testid="hint">{{ view.hint }}</p>
  </div>
</template>
