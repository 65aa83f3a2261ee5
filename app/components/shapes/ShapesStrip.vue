<script setup lang="ts">
import { computed } from 'vue'
import { short } from '#core/geometry/path'
import NodeFields from '~/components/lines/NodeFields.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useOutlinesStore } from '~/stores/outlines'
import { useViewStore } from '~/stores/view'
import { stripOf } from '~/components/strip-of'
import { instrumentOf } from '~/catalogue/instruments'
import { useInk } from '~/workspace/use-ink'
import HowShapes from './HowShapes.vue'
import IslandsSection from './IslandsSection.vue'

const store = useDrawingStore()
const view = useViewStore()
const outlines = useOutlinesStore()
const ink = useInk()

const tool = computed(() => instrumentOf(view.instrument))
const strip = computed(() => stripOf(tool.value))
const result = computed(() => ink.shapes.value)
const saved = computed(() => {
  const r = result.value
  return r && r.nodesBefore ? Math.round((1 - r.nodesAfter / r.nodesBefore) * 100) : 0
})
const islands = ink.islandCount
const mm = (px: number): string => short(px / store.drawing!.page.pxPerMm, 3)

const retouches = computed(() => store.drawing!.amendments?.filter((a) => a.kind === 'retouch').length ?? 0)

const forget = (): void =>
  store.edit(
    'Take retouches back',
    (draft) => void (draft.amendments = draft.amendments?.filter((a) => a.kind !== 'retouch')),
  )
</script>

<template>
  <div v-if="view.instrument === 'outline' && outlines.nodes.length" class="grid content-start gap-2">
    <b class="flex h-7 items-center font-[650]"
      >{{ outlines.nodes.length === 1 ? 'A node' : `${outlines.nodes.length} nodes` }} of the outline</b
    >
    <NodeFields :surface="outlines" />
    <p class="quiet">
      What you change here is put on again whenever the outline is made from its lines. Dragged across its own edge, a
      shape is cut.
    </p>
  </div>
  <component :is="strip" v-else-if="strip && tool?.passes.length === 1" />
  <div v-else class="flex h-full gap-9">
    <HowShapes />
    <div class="flex min-h-0 min-w-0 flex-1 flex-col gap-2">
      <div
        v-if="result"
        class="flex min-h-6 shrink-0 flex-wrap items-center gap-x-4 whitespace-nowrap"
        data-testid="shape-numbers"
      >
        <span :title="`${islands} islands in ${result.shapes.length} shapes`"
          ><b class="number text-[13px]" data-testid="shape-count">{{ result.shapes.length }}</b>
          {{ result.shapes.length === 1 ? 'shape' : 'shapes' }}, <b class="number text-[13px]">{{ islands }}</b>
          {{ islands === 1 ? 'island' : 'islands' }}</span
        >
        <span :title="saved > 0 ? `${saved} % fewer nodes than expanded` : 'As many nodes as expanded'"
          >Nodes <b class="number text-[13px]" data-testid="nodes-before">{{ result.nodesBefore }}</b> →
          <b class="number text-[13px]" data-testid="nodes-after">{{ result.nodesAfter }}</b></span
        >
        <span :title="`${mm(result.deviation)} mm at the final size`"
          >Deviation
          <b class="number text-[13px]" data-testid="deviation">{{ result.deviation.toFixed(3) }}</b> px</span
        >
      </div>
      <div class="flex min-h-6 shrink-0 flex-wrap items-center gap-x-6 gap-y-1.5 whitespace-nowrap">
        <label
          class="flex items-center gap-2.5"
          title="The outlines as expanded, in amber over those that leave: of the chosen islands, or of all"
        >
          <input v-model="view.compared" type="checkbox" class="h-4 w-4 accent-plum" data-testid="compared" />
          Show the outlines as expanded, too
        </label>
        <label
          class="flex items-center gap-2.5"
          title="Every connected shape with its nodes and its area, to be chosen"
        >
          <input
            :checked="!view.folds.islands"
            type="checkbox"
            class="h-4 w-4 accent-plum"
            data-testid="list-islands"
            @change="view.folds.islands = !view.folds.islands"
          />
          List the islands
        </label>
      </div>
      <IslandsSection />
      <p v-if="retouches && !view.islands.length" class="flex shrink-0 items-center gap-3">
        <span
          ><span class="number">{{ retouches }}</span> {{ retouches === 1 ? 'retouch' : 'retouches' }} of
          outlines<template v-if="result?.waiting"
            >, <span class="number">{{ result.waiting }}</span> waiting: Proof shows where</template
          ></span
        >
        <button class="button !py-0.5" title="The outlines as the lines make them" @click="forget">
          Take retouches back
        </button>
      </p>
    </div>
  </div>
</template>
