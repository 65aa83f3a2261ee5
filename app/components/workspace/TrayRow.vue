<script setup lang="ts">
import { useViewStore } from '~/stores/view'
import { TRAY_KEYS } from '~/catalogue/instruments'
import { useRoom } from '~/stores/room'
import { useTray } from '~/workspace/use-tray'

/** The instruments in one row, where there is no room for a tray; what the hand can do now stands beside them, if it can. */
const view = useViewStore()
const { room } = useRoom()
const { tools, hold, letGo, take } = useTray()
</script>

<template>
  <div class="flex min-w-0 flex-auto items-center gap-2" data-testid="tray">
    <div
      class="flex min-w-0 shrink gap-[3px] overflow-x-auto p-0.5 [scrollbar-width:none]"
      role="toolbar"
      aria-label="Instruments"
    >
      <button
        v-for="(tool, i) in tools"
        :key="tool.id"
        class="relative flex h-11 w-11 shrink-0 flex-col items-center justify-center gap-px rounded-[10px] border pt-1 text-[10.5px] leading-3 tracking-[-0.04em]"
        :aria-label="`${tool.key} ${tool.title}`"
        :class="[
          view.instrument === tool.id ? 'border-plum bg-plum text-white' : 'border-hair bg-raise hover:border-mute',
          i === TRAY_KEYS.length && 'ml-1.5',
          room === 'narrow low' && 'max-md:w-[30px]',
        ]"
        :aria-pressed="view.instrument === tool.id"
        :title="`${tool.title}: ${tool.help} (${tool.spoken})`"
        @pointerdown="hold(tool.id, $event)"
        @pointerup="letGo"
        @pointercancel="letGo"
        @click="take(tool.id)"
      >
        <kbd
          class="number absolute top-px right-1 text-[8.5px] font-semibold"
          :class="view.instrument === tool.id ? 'text-[#f4d4e4]' : 'text-mute'"
          >{{ i < TRAY_KEYS.length ? '' : '⇧' }}{{ tool.key }}</kbd
        >
        <component :is="tool.icon" :size="16" :stroke-width="1.7" />
        <span :class="room === 'narrow low' && 'max-md:hidden'">{{ tool.title }}</span>
      </button>
    </div>
    <p
      v-if="room === 'wide low'"
      class="quiet line-clamp-2 min-w-0 flex-1 basis-[90px] text-[12px] leading-4"
      aria-live="polite"
      :title="view.hint"
      data-testid="hint"
    >
      {{ view.hint }}
    </p>
  </div>
</template>
