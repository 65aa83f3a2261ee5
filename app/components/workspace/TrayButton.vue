<script setup lang="ts">
import type { TrayTool } from '~/workspace/use-tray'
import { useTrayHand } from '~/workspace/use-tray'
import { useViewStore } from '~/stores/view'

/** An instrument of the tray: taken by a click; a finger or a pen that holds it has it only as long, as with its key. */
const props = defineProps<{ tool: TrayTool; icon: number; mark: string; wordless?: string }>()

const view = useViewStore()
const { hold, letGo, take } = useTrayHand()
</script>

<template>
  <button
    class="relative flex flex-col items-center justify-center rounded-[10px] border"
    :class="view.instrument === tool.id ? 'border-plum bg-plum text-white' : 'border-hair bg-raise hover:border-mute'"
    :aria-label="`${tool.key} ${tool.title}`"
    :aria-pressed="view.instrument === tool.id"
    :title="`${tool.title}: ${tool.help} (${tool.spoken})`"
    @pointerdown="hold(tool.id, $event)"
    @pointerup="letGo"
    @pointercancel="letGo"
    @click="take(tool.id)"
  >
    <kbd
      class="number absolute top-px right-1 text-[9px] font-semibold"
      :class="view.instrument === tool.id ? 'text-[#f4d4e4]' : 'text-mute'"
      >{{ props.mark }}</kbd
    >
    <component :is="tool.icon" :size="props.icon" :stroke-width="1.7" />
    <span :class="props.wordless">{{ tool.title }}</span>
  </button>
</template>
