<script setup lang="ts">
import type { Component } from 'vue'
import { computed } from 'vue'
import { BowArrow, Diamond, Move, Shapes, MousePointer2, ScanSearch, Signature, Spline, UnfoldVertical } from 'lucide-vue-next'
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
  caliper: { title: 'Caliper', icon: UnfoldVertical },
  place: { title: 'Place', icon: Move },
  inspect: { title: 'Inspect', icon: ScanSearch },
}

const instruments = computed(() =>
  TRAY[view.pass].map((id, i) => ({ id, key: TRAY_KEYS[i]!.toUpperCase(), ...LOOKS[id]! })),
)
</script>

<template>
  <div class="flex h-full w-[314px] shrink-0 flex-col border-r border-hair px-3 py-3" data-testid="tray">
    <div class="flex gap-1" role="toolbar" aria-label="Instruments">
      <button
        v-for="tool in instruments"
        :key="tool.id"
        class="relative flex h-[58px] max-w-[66px] min-w-[42px] flex-auto flex-col items-center justify-center gap-[3px] rounded-[10px] border text-[11px] tracking-[-0.015em]"
        :class="view.instrument === tool.id ? 'border-plum bg-plum text-white' : 'border-hair bg-raise hover:border-mute'"
        :aria-pressed="view.instrument === tool.id"
        :title="`${tool.title} (${tool.key})`"
        @click="view.chosen[view.pass] = tool.id"
      >
        <kbd class="number absolute top-[3px] right-1.5 text-[10px] font-semibold" :class="view.instrument === tool.id ? 'text-[#f4d4e4]' : 'text-mute'">{{ tool.key }}</kbd>
        <component :is="tool.icon" :size="17" :stroke-width="1.7" />
        <span>{{ tool.title }}</span>
      </button>
    </div>
    <ProfileShelf v-if="view.pass === 'weight' || view.pass === 'lines'" class="mt-2.5" />
    <p class="quiet mt-auto text-[12px] leading-4" aria-live="polite" data-testid="hint">{{ view.hint }}</p>
  </div>
</template>
