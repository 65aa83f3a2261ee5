<script setup lang="ts">
import { computed } from 'vue'
import { newFillsLayer } from '#core/model/create'
import { newId } from '#core/new-id'
import { closedFigure } from '#core/geometry/close-strokes'
import { useChosenLines } from '~/workspace/use-chosen-lines'
import { useAlike } from '~/workspace/use-alike'
import { useEnds } from '~/workspace/use-ends'
import { useTurnBack } from '~/workspace/use-turn-back'
import { STACK_MOVES, useStackOrder } from '~/workspace/use-stack-order'
import GatherField from './GatherField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useKeysStore } from '~/stores/keys'
import { useStudioStore } from '~/stores/studio'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

const store = useDrawingStore()
const view = useViewStore()
const studio = useStudioStore()
const keys = useKeysStore()
const chosen = useChosenLines()
const alike = useAlike()
const restack = useStackOrder()
const ends = useEnds()

/** Ends this near to each other touch; those this near have a small gap, px. */
const TOUCHING = 0.5
const SMALL_GAP = 6

const { solids, turn } = useTurnBack()

const closed = computed(() => chosen.lines.value.filter((l) => l.path.closed))

const scraped = computed(() => chosen.lines.value.filter((l) => l.scrapes?.length))
const takeBack = (): void => chosen.change('Take scrapings back', (l) => void delete l.scrapes)

/** The chosen strokes, in one closed contour, as a fill below the lowest of their layers. */
function closeIntoFill(): void {
  const lines = chosen.lines.value
  const contour = closedFigure(lines.map((l) => l.path))
  if (!contour || contour.nodes.length < 2) {
    store.notice = 'These strokes enclose nothing. Choose the strokes that go round the figure.'
    return
  }
  const shape = { id: newId(), contours: [contour], ink: lines[0]!.ink, from: lines.map((l) => l.id) }
  store.edit('Close into a fill', (draft) => {
    const lowest = draft.layers.findIndex((l) => l.items.some((i) => shape.from.includes(i.id)))
    const below = draft.layers[lowest - 1]
    if (below?.kind === 'fills' && below.visible && !below.locked) below.items.push(shape)
    else draft.layers.splice(Math.max(0, lowest), 0, newFillsLayer('Fills', [shape]))
  })
  view.select([])
  view.solids = [shape.id]
}

function setCover(cover: boolean): void {
  chosen.change(cover ? 'Cover what lies behind' : 'Cover nothing', (l) => {
    if (l.path.closed) l.cover = cover
  })
}
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
    <GatherField what="lines" />
    <button class="button" :title="keys.titled('Say which forms lie in front', 'fronts')" @click="view.callUp('front')">
      What lies in front
    </button>
    <button
      class="button"
      :title="keys.titled('Draw one side and the other follows, or repeat about a point', 'mirror-lines')"
      @click="view.callUp('mirror')"
    >
      Mirror or repeat
    </button>
    <button
      class="button"
      :title="keys.titled('Bend several lines at once, softly', 'push')"
      @click="view.callUp('push')"
    >
      Push
    </button>
  </div>
  <div v-if="chosen.lines.value.length" class="flex items-center gap-1.5" role="group" aria-label="Choose all alike">
    <span class="mr-1">Choose all with the same</span>
    <button class="button" @click="alike('ink')">Ink</button>
    <button class="button" @click="alike('size')">Size</button>
    <button class="button" @click="alike('profile')">Profile</button>
  </div>
  <TickField
    v-if="chosen.lines.value.length"
    v-model="studio.preferences.scaleWeights"
    title="When a corner of the frame is dragged"
    >Scaling what is chosen scales its weights too</TickField
  >
  <div v-if="chosen.lines.value.length" class="flex items-center gap-1.5">
    <button
      class="button"
      title="One fill inside these strokes, below them; gaps are closed straight across"
      @click="closeIntoFill"
    >
      Close into a fill
    </button>
    <button v-if="scraped.length" class="button" title="Show again what was scraped away" @click="takeBack">
      Take scrapings back
    </button>
  </div>
  <div
    v-if="chosen.lines.value.length"
    class="flex items-center gap-1.5"
    role="group"
    aria-label="Ends of what is chosen"
  >
    <span class="mr-1">Ends</span>
    <button
      class="button"
      title="Lines whose ends touch become one"
      @click="ends.joinAll('Join touching ends', TOUCHING)"
    >
      Join
    </button>
    <button
      class="button"
      :title="`Ends up to ${SMALL_GAP} px apart meet half way, and are joined`"
      @click="ends.joinAll('Close small gaps', SMALL_GAP)"
    >
      Close small gaps
    </button>
    <button
      v-if="chosen.lines.value.length > 1"
      class="button"
      title="All go the way of the line that was chosen first"
      @click="ends.oneWay"
    >
      One way
    </button>
  </div>
  <div v-if="solids.length" class="flex items-center gap-2.5">
    <button
      class="button"
      title="Outlines of strokes become lines again: a middle, a weight and caps, with the measured deviation"
      :disabled="!!view.work"
      @click="turn"
    >
      Turn into {{ solids.length === 1 ? 'a line' : 'lines' }}
    </button>
    <span class="quiet"
      ><span class="number">{{ solids.length }}</span> {{ solids.length === 1 ? 'outline' : 'outlines' }}</span
    >
  </div>
  <div v-if="chosen.lines.value.length" class="flex items-center gap-1.5" role="group" aria-label="Place in the layer">
    <span class="mr-1">In its layer</span>
    <button
      v-for="m in STACK_MOVES"
      :key="m.move"
      class="button"
      :title="keys.titled(m.label, m.move)"
      @click="restack(m.move)"
    >
      {{ m.title }}
    </button>
  </div>
  <label v-if="closed.length" class="flex items-center gap-2.5">
    <input
      type="checkbox"
      class="h-4 w-4 accent-plum"
      :checked="closed.every((l) => l.cover)"
      @change="setCover(($event.target as HTMLInputElement).checked)"
    />
    Covers what lies behind it
  </label>
</template>
