<script setup lang="ts">
import { computed, nextTick, watch } from 'vue'
import { ChevronDown, ChevronUp, Pin, PinOff } from 'lucide-vue-next'
import DeliverDock from '~/components/deliver/DeliverDock.vue'
import FillStrip from '~/components/fill/FillStrip.vue'
import LinesStrip from '~/components/lines/LinesStrip.vue'
import ShapesStrip from '~/components/shapes/ShapesStrip.vue'
import SketchStrip from '~/components/sketch/SketchStrip.vue'
import ProfileShelf from '~/components/weight/ProfileShelf.vue'
import WeightStrip from '~/components/weight/WeightStrip.vue'
import { passOf } from '~/catalogue/passes'
import { useRoom } from '~/stores/room'
import { useViewStore } from '~/stores/view'
import HandBrief from './HandBrief.vue'
import Tray from './Tray.vue'
import TrayRow from './TrayRow.vue'

/**
 * What the hand works with: instruments and the Strip side by side; the one above the other in a narrow window; in a low one
 * the instruments alone, and the Strip over the canvas's edge when it is asked for.
 */
const STRIPS = {
  sketch: SketchStrip,
  lines: LinesStrip,
  weight: WeightStrip,
  shapes: ShapesStrip,
  fill: FillStrip,
  deliver: DeliverDock,
} as const

const view = useViewStore()
const { isLow, isNarrow } = useRoom()
const strip = computed(() => STRIPS[view.pass])
const delivers = computed(() => view.pass === 'deliver')
const isUp = computed(() => view.stripUp || view.folds.pinned)

// What leaves is all that Deliver is about; elsewhere the Strip goes down again with the pass.
watch(
  () => view.pass,
  (pass) => (view.stripUp = pass === 'deliver'),
  { immediate: true },
)

// A field there that is to have the keyboard must be there.
watch(
  () => view.asked,
  async (asked) => {
    if (!asked || !isLow.value || isUp.value) return
    view.stripUp = true
    await nextTick()
    view.asked = { ...asked }
  },
)

function putDown(): void {
  view.stripUp = false
  view.folds.pinned = false
}
</script>

<template>
  <footer v-if="!isLow && !isNarrow" class="flex h-[176px] touch:h-[236px] border-t border-hair bg-panel">
    <DeliverDock v-if="delivers" />
    <template v-else>
      <Tray />
      <div class="min-w-0 flex-1 touch:overflow-y-auto px-4 py-2" data-testid="strip"><component :is="strip" /></div>
    </template>
  </footer>
  <footer v-else-if="!isLow" class="border-t border-hair bg-panel">
    <div v-if="!delivers" class="flex items-center gap-2 border-b border-hair px-2 py-1">
      <TrayRow />
      <ProfileShelf v-if="passOf(view.pass).hasShelf" class="max-w-[300px] min-w-[130px] shrink-0 grow basis-0" />
    </div>
    <div
      class="h-[176px] touch:h-[236px] overflow-x-auto overflow-y-hidden touch:overflow-y-auto"
      :class="delivers && 'max-sm:h-[272px] max-sm:overflow-y-auto'"
    >
      <div class="flex h-full min-w-[736px] py-2" :class="delivers ? 'max-sm:min-w-0' : 'px-4'" data-testid="strip">
        <component :is="strip" class="min-w-0 flex-1" />
      </div>
    </div>
  </footer>
  <footer v-else class="relative border-t border-hair bg-panel">
    <section
      v-if="isUp"
      class="absolute right-0 bottom-full left-0 z-20 h-[186px] touch:h-[236px] border-t border-hair bg-panel shadow-[0_-14px_30px_-18px_#0007]"
      :class="view.folds.column ? '' : 'xl:right-64'"
      aria-label="Strip"
    >
      <div class="h-full overflow-auto">
        <div
          class="flex h-full py-2 pr-3"
          :class="[delivers ? '' : 'pl-4', passOf(view.pass).hasShelf ? 'min-w-[886px]' : 'min-w-[736px]']"
          data-testid="strip"
        >
          <div v-if="passOf(view.pass).hasShelf" class="w-[166px] shrink-0 pr-4"><ProfileShelf wraps /></div>
          <component :is="strip" class="min-w-0 flex-1" />
        </div>
      </div>
    </section>
    <div class="flex h-[54px] items-center gap-3 px-2">
      <TrayRow v-if="!delivers" />
      <p v-else class="quiet flex-1">What leaves, and as what, is set above.</p>
      <HandBrief v-if="!isUp" />
      <button
        v-if="isUp && !delivers"
        class="quiet -mr-2 grid h-9 w-8 shrink-0 place-items-center rounded"
        :class="view.folds.pinned && 'text-plum'"
        :aria-pressed="view.folds.pinned"
        :title="view.folds.pinned ? 'It stays up. Click to let it go down by itself' : 'Keep it up while drawing'"
        aria-label="Keep the Strip up"
        @click="((view.stripUp = true), (view.folds.pinned = !view.folds.pinned))"
      >
        <component :is="view.folds.pinned ? Pin : PinOff" :size="15" />
      </button>
      <button
        class="button flex h-9 shrink-0 items-center gap-1"
        :aria-expanded="isUp"
        title="All that can be set for what is in hand"
        data-testid="strip-up"
        @click="isUp ? putDown() : (view.stripUp = true)"
      >
        <component :is="isUp ? ChevronDown : ChevronUp" :size="14" />
        {{ delivers ? 'Deliver' : 'More' }}
      </button>
    </div>
  </footer>
</template>
