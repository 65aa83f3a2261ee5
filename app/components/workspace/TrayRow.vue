<script setup lang="ts">
import { useViewStore } from '~/stores/view'
import { TRAY_KEYS } from '~/catalogue/instruments'
import { useRoom } from '~/stores/room'
import { useTray } from '~/workspace/use-tray'
import TrayButton from './TrayButton.vue'

/** The instruments in one row, where there is no room for a tray; what the hand can do now stands beside them, if it can. */
const view = useViewStore()
const { room } = useRoom()
const { tools } = useTray()
</script>

<template>
  <div class="flex min-w-0 flex-auto items-center gap-2" data-testid="tray">
    <div
      class="flex min-w-0 shrink gap-[3px] overflow-x-auto p-0.5 [scrollbar-width:none]"
      role="toolbar"
      aria-label="Instruments"
    >
      <TrayButton
        v-for="(tool, i) in tools"
        :key="tool.id"
        :tool="tool"
        :mark="i < TRAY_KEYS.length ? tool.key : tool.key.length > 1 ? '' : `⇧${tool.key}`"
        :icon="16"
        class="h-11 w-11 shrink-0 gap-px pt-1 text-[10.5px] leading-3 tracking-[-0.04em]"
        :class="[i === TRAY_KEYS.length && 'ml-1.5', room === 'narrow low' && 'max-md:w-[30px]']"
        :wordless="room === 'narrow low' ? 'max-md:hidden' : ''"
      />
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
