<script setup lang="ts">
import { computed } from 'vue'
import { short } from '#core/geometry/path'
import { HEAVIEST, heavier, lighter } from '#core/weight/size'
import { instrumentOf } from '~/catalogue/instruments'
import InkField from '~/components/ui/InkField.vue'
import { useKeysStore } from '~/stores/keys'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { useChosenLines } from '~/workspace/use-chosen-lines'

/** What a hand needs most of the Strip, where that is not up: the size and the ink of what is chosen, or of the next line. */
const view = useViewStore()
const studio = useStudioStore()
const keys = useKeysStore()
const chosen = useChosenLines()

const sized = computed(
  () =>
    chosen.lines.value.length > 0 ||
    (view.pass === 'lines' && (instrumentOf(view.instrument)?.sized || view.instrument === 'freehand')),
)
const size = computed(() => chosen.lines.value[0]?.weight.size ?? studio.preferences.size)

function change(label: string, to: (size: number) => number): void {
  if (chosen.lines.value.length) chosen.change(label, (l) => void (l.weight.size = to(l.weight.size)))
  else studio.takeSize(Math.min(HEAVIEST, to(size.value)))
}
</script>

<template>
  <div
    v-if="view.pass === 'lines' || view.pass === 'weight'"
    class="flex shrink-0 items-center gap-2"
    data-testid="brief"
  >
    <span v-if="sized" class="flex items-center">
      <button
        class="grid h-9 w-7 place-items-center rounded text-[17px] leading-none hover:bg-raise"
        :title="keys.titled('Lighter', 'lighter')"
        aria-label="Lighter"
        @click="change('Lighter', lighter)"
      >
        −
      </button>
      <span
        class="number min-w-11 text-center whitespace-nowrap"
        :title="chosen.lines.value.length ? 'Size' : 'Size of the next line'"
        >{{ short(size, 2) }} px</span
      >
      <button
        class="grid h-9 w-7 place-items-center rounded text-[17px] leading-none hover:bg-raise"
        :title="keys.titled('Heavier', 'heavier')"
        aria-label="Heavier"
        @click="change('Heavier', heavier)"
      >
        +
      </button>
    </span>
    <InkField class="max-md:hidden" />
  </div>
</template>
