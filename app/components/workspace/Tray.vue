<script setup lang="ts">
import type { Component } from 'vue'
import { computed } from 'vue'
import { BowArrow, CircleDot, Diamond, Droplet, FlipHorizontal2, Move, PaintRoller, PocketKnife, Shapes, MousePointer2, ScanSearch, Scissors, Signature, Spline, Sun, Tablet, UnfoldVertical } from 'lucide-vue-next'
import { TRAY, TRAY_KEYS, useViewStore } from '~/stores/view'
import ProfileShelf from '~/components/weight/ProfileShelf.vue'

const view = useViewStore()

const LOOKS: Record<string, { title: string; icon: Component }> = {
  select: { title: 'Select', icon: MousePointer2 },
  pen: { title: 'Pen', icon: Spline },
  bow: { title: 'Bow', icon: BowArrow },
  freehand: { title: 'Freehand', icon: Signature },
  nodes: { title: 'Nodes', icon: Diamond },
  figure: { title: 'Figure', icon: Shapes },
  practice: { title: 'Practice', icon: Tablet },
  blot: { title: 'Blot', icon: Droplet },
  scrape: { title: 'Scrape', icon: PocketKnife },
  snip: { title: 'Snip', icon: Scissors },
  caliper: { title: 'Caliper', icon: UnfoldVertical },
  contact: { title: 'Contact', icon: CircleDot },
  light: { title: 'Light', icon: Sun },
  sweep: { title: 'Sweep', icon: PaintRoller },
  match: { title: 'Match', icon: FlipHorizontal2 },
  place: { title: 'Place', icon: Move },
  outline: { title: 'Nodes', icon: Diamond },
  inspect: { title: 'Inspect', icon: ScanSearch },
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
  <div class="flex h-full w-[314px] shrink-0 flex-col border-r border-hair px-3 py-2.5" data-testid="tray">
    <div class="grid gap-1" role="toolbar" aria-label="Instruments">
      <div v-for="(row, i) in rows" :key="row[0]!.id" class="grid grid-cols-6 gap-1" :class="rows.length > 1 ? 'h-[39px]' : 'h-[58px]'">
        <button
          v-for="tool in row"
          :key="tool.id"
          class="relative flex flex-col items-center justify-center rounded-[10px] border tracking-[-0.015em]"
          :class="[view.instrument === tool.id ? 'border-plum bg-plum text-white' : 'border-hair bg-raise hover:border-mute', rows.length > 1 ? 'gap-px pt-0.5 text-[10.5px]' : 'gap-[3px] text-[11px]']"
          :aria-pressed="view.instrument === tool.id"
          :title="`${tool.title} (${tool.spoken})`"
          @click="view.chosen[view.pass] = tool.id"
        >
          <kbd class="number absolute top-px right-1 text-[9.5px] font-semibold" :class="view.instrument === tool.id ? 'text-[#f4d4e4]' : 'text-mute'">{{ tool.key }}</kbd>
          <component :is="tool.icon" :size="rows.length > 1 ? 15 : 17" :stroke-width="1.7" />
          <span>{{ tool.title }}</span>
        </button>
        <span v-if="i > 0 && row.length < TRAY_KEYS.length" class="quiet self-center pl-1.5 text-[11px] leading-[1.25]" :style="{ gridColumn: `span ${TRAY_KEYS.length - row.length}` }">these with Shift</span>
      </div>
    </div>
    <ProfileShelf v-if="view.pass === 'weight' || view.pass === 'lines'" class="mt-2" />
    <p class="quiet mt-auto text-[12px] leading-4" aria-live="polite" data-testid="hint">{{ view.hint }}</p>
  </div>
</template>
