<script setup lang="ts">
import { computed } from 'vue'
import { Pin, PinOff } from 'lucide-vue-next'
import type { Line } from '#core/model/model'
import { short } from '#core/geometry/path'
import { flipEnds, flipSides } from '#core/weight/shelf'
import { HEAVIEST, heavier, lighter } from '#core/weight/size'
import { widthOf } from '~/instruments/across'
import { arcOf } from '~/instruments/line-marks'
import { useDrawingStore } from '~/stores/drawing'
import { useKeysStore } from '~/stores/keys'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { useCalm } from '~/workspace/use-calm'
import { stripOf } from '~/components/strip-of'
import { instrumentOf } from '~/catalogue/instruments'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import InkField from '~/components/ui/InkField.vue'
import CopyMenu from './CopyMenu.vue'
import FinishMenu from './FinishMenu.vue'
import PressureMenu from './PressureMenu.vue'
import StopFields from './StopFields.vue'
import TaperMenu from './TaperMenu.vue'
import WeightGraph from './WeightGraph.vue'

/** More lines than this are not laid over each other in the graph. */
const MOST_LAID_OVER = 12

const store = useDrawingStore()
const studio = useStudioStore()
const keys = useKeysStore()
const view = useViewStore()
const chosen = useChosenLines()

/** What an instrument of this pass alone has to set. */
const rule = computed(() => {
  const tool = instrumentOf(view.instrument)
  return tool?.passes.length === 1 ? stripOf(tool) : undefined
})

/** The line in hand: that of the stop chosen last, or the first. */
const inHand = computed(() => chosen.lines.value.find((l) => l.id === view.stop?.line) ?? chosen.lines.value[0] ?? null)
/** While a hand drags on the canvas the Strip follows a little behind. */
const first = useCalm(
  inHand,
  () => store.changing && !view.graphHeld,
  (a, b) => a?.id === b?.id && a?.weight.stops.length === b?.weight.stops.length,
)
const others = computed(() =>
  many.value ? chosen.lines.value.filter((l) => l.id !== first.value?.id).slice(0, MOST_LAID_OVER) : NONE,
)
const NONE: readonly Line[] = []
const many = computed(() => chosen.lines.value.length > 1)
const title = computed(() => (many.value ? `${chosen.lines.value.length} lines` : 'Line'))

const range = computed(() => {
  if (!first.value) return ''
  const { total } = arcOf(first.value)
  const width = widthOf(first.value)
  const wide = Array.from({ length: 101 }, (_, i) => width.at((i / 100) * total)).map((h) => h.left + h.right)
  return `${Math.min(...wide).toFixed(1)} – ${Math.max(...wide).toFixed(1)} px`
})

const size = computed(() => first.value?.weight.size ?? 0)
const pinned = computed(() => chosen.lines.value.every((l) => l.weight.pinned))

function setSize(e: Event): void {
  const input = e.target as HTMLInputElement
  const v = Number.parseFloat(input.value.replace(',', '.'))
  if (!(v >= 0 && v <= HEAVIEST)) {
    input.value = short(size.value, 2)
    store.notice = `A size is a number from 0 to ${HEAVIEST} px, so it stayed as it was.`
    return
  }
  studio.preferences.size = v
  chosen.change(`Size ${short(v, 2)} px`, (l) => void (l.weight.size = v))
}

function togglePin(): void {
  const to = !pinned.value
  chosen.change(to ? 'Pin' : 'Unpin', (l) => void (l.weight.pinned = to))
}

/** Brings another of the chosen lines into the hand. */
const bringUp = (id: string): void => view.select([id, ...view.selection.filter((s) => s !== id)])
</script>

<template>
  <component :is="rule" v-if="rule" />
  <div v-else class="flex h-full flex-col">
    <div class="flex h-6 items-center gap-2 whitespace-nowrap xl:gap-3.5">
      <template v-if="first">
        <b class="font-[650]">{{ title }}</b>
        <span v-if="!others.length" class="quiet number hidden xl:inline"
          >{{ short(arcOf(first).total, 0) }} px long</span
        >
        <span class="number" data-testid="range">{{ range }}</span>
        <span class="flex items-center gap-1">
          <span class="quiet mr-0.5 hidden xl:inline">Size</span>
          <button
            class="grid h-6 w-6 place-items-center rounded text-[16px] leading-none hover:bg-raise"
            :title="keys.titled('Lighter, each line by its own size', 'lighter')"
            aria-label="Lighter"
            @click="chosen.change('Lighter', (l) => void (l.weight.size = lighter(l.weight.size)))"
          >
            −
          </button>
          <input
            class="field number w-14 !py-0 text-right"
            :value="short(size, 2)"
            inputmode="decimal"
            aria-label="Size in px"
            data-testid="size"
            @change="setSize"
            @keydown.enter="($event.target as HTMLInputElement).blur()"
          />
          <button
            class="grid h-6 w-6 place-items-center rounded text-[16px] leading-none hover:bg-raise"
            :title="keys.titled('Heavier, each line by its own size', 'heavier')"
            aria-label="Heavier"
            @click="chosen.change('Heavier', (l) => void (l.weight.size = heavier(l.weight.size)))"
          >
            +
          </button>
        </span>
        <button
          class="flex items-center gap-1 text-[12.5px]"
          :class="pinned ? 'text-plum' : 'text-mute-deep'"
          :aria-pressed="pinned"
          :title="
            pinned
              ? 'Weight set by hand: rules leave it alone. Click to let them weigh it again'
              : 'Rules may weigh it. Click to keep it as it is'
          "
          @click="togglePin"
        >
          <component :is="pinned ? Pin : PinOff" :size="14" />{{ pinned ? 'Pinned' : 'Pin' }}
        </button>
        <span class="ml-auto flex items-center gap-2 xl:gap-3.5">
          <InkField />
          <button
            class="quiet"
            :title="keys.titled('Flip ends', 'flip-ends')"
            @click="chosen.change('Flip ends', (l) => void (l.weight = flipEnds(l.weight)))"
          >
            Flip ends
          </button>
          <button
            class="quiet"
            :title="keys.titled('Flip sides', 'flip-sides')"
            @click="chosen.change('Flip sides', (l) => void (l.weight = flipSides(l.weight)))"
          >
            Flip sides
          </button>
          <TaperMenu />
          <FinishMenu />
          <PressureMenu />
          <CopyMenu />
        </span>
      </template>
      <template v-else>
        <b class="font-[650]">No line chosen</b>
        <span class="quiet ml-auto" data-testid="next-weight">The next line gets: {{ studio.nextInWords }}</span>
        <TaperMenu />
      </template>
    </div>
    <div v-if="first" class="mt-1 flex min-h-0 flex-1 gap-3">
      <WeightGraph :key="first.id" :line="first" :others="others" @choose="bringUp" />
      <StopFields :line="first" class="w-[218px] shrink-0" />
    </div>
    <p v-else class="quiet mt-3 max-w-[620px]">
      Click a line on the drawing to see its width here. Edges in shadow are thick, edges that face the light are thin,
      an end in the open tapers. <b class="font-[650]">Contact</b> and <b class="font-[650]">Light</b> propose that for
      the whole drawing.
    </p>
  </div>
</template>
