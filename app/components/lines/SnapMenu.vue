<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { computed } from 'vue'
import { Crosshair } from 'lucide-vue-next'
import type { SnapKind } from '#core/geometry/snap'
import { SNAP_KINDS } from '#core/geometry/snap'
import NumberField from '~/components/ui/NumberField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useStudioStore } from '~/stores/studio'
import { usePlaced } from '~/workspace/use-placed'

const TITLES: Record<SnapKind, string> = {
  end: 'Ends of lines',
  node: 'Nodes',
  crossing: 'Crossings',
  middle: 'Middles of segments',
  tangent: 'Where a straight line would touch',
  line: 'Anywhere on a line',
  align: 'In line with what lies near',
  grid: 'Grid',
}

const { preferences } = useStudioStore()
const on = computed(() => SNAP_KINDS.filter((k) => preferences.snaps[k]).length)

function setGrid(size: number): void {
  preferences.gridSize = Math.min(500, Math.max(2, size))
}

const { anchor, panel, styles } = usePlaced('top-end')
</script>

<template>
  <Popover class="relative">
    <PopoverButton
      ref="anchor"
      class="button flex items-center gap-1.5 !py-0.5 text-[13px]"
      title="What points are drawn to while lines are laid and nodes are moved"
    >
      <Crosshair :size="14" :stroke-width="1.7" /> Snapping <span class="number quiet">{{ on ? on : 'off' }}</span>
    </PopoverButton>
    <PopoverPanel ref="panel" :style="styles" class="pop grid w-[290px] gap-1.5 p-4">
      <TickField v-for="kind in SNAP_KINDS" :key="kind" v-model="preferences.snaps[kind]">{{ TITLES[kind] }}</TickField>
      <NumberField
        v-if="preferences.snaps.grid"
        label="Every"
        :value="preferences.gridSize"
        unit="px"
        class="ml-6"
        @keep="setGrid"
      />
      <p class="quiet mt-1 text-[12px]">Hold Ctrl to let the hand go free.</p>
    </PopoverPanel>
  </Popover>
</template>
