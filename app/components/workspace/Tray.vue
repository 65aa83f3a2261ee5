<script setup lang="ts">
import { useViewStore } from '~/stores/view'
import { TRAY_KEYS } from '~/catalogue/instruments'
import { passOf } from '~/catalogue/passes'
import ProfileShelf from '~/components/weight/ProfileShelf.vue'
import { useTray } from '~/workspace/use-tray'
import TrayButton from './TrayButton.vue'

const view = useViewStore()
const { rows } = useTray()
</script>

<template>
  <div class="flex h-full w-[314px] shrink-0 flex-col border-r border-hair px-2 py-2.5" data-testid="tray">
    <div class="grid gap-1" role="toolbar" aria-label="Instruments">
      <div
        v-for="(row, i) in rows"
        :key="row[0]!.id"
        class="grid grid-cols-6 gap-[3px]"
        :class="rows.length > 1 ? 'h-[39px]' : 'h-[58px]'"
      >
        <TrayButton
          v-for="tool in row"
          :key="tool.id"
          :tool="tool"
          :mark="tool.key.length > 1 ? '' : tool.key"
          :icon="rows.length > 1 ? 15 : 17"
          :class="
            rows.length > 1
              ? 'gap-px pt-0.5 text-[11px] tracking-[-0.03em]'
              : 'gap-[3px] text-[12px] tracking-[-0.015em]'
          "
        />
        <span
          v-if="i === 1 && row.length < TRAY_KEYS.length"
          class="quiet self-center pl-1.5 text-[11px] leading-[1.25]"
          :style="{ gridColumn: `span ${TRAY_KEYS.length - row.length}` }"
          >{{ row.length < TRAY_KEYS.length - 1 ? 'this row: hold Shift with the key' : 'with Shift' }}</span
        >
      </div>
    </div>
    <ProfileShelf v-if="passOf(view.pass).hasShelf && rows.length < 3" class="mt-2" />
    <p
      class="quiet mt-auto line-clamp-2 text-[12px] leading-4"
      aria-live="polite"
      :title="view.hint"
      data-testid="hint"
    >
      {{ view.hint }}
    </p>
  </div>
</template>
