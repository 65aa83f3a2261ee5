<script setup lang="ts">
import { computed } from 'vue'
import type { ShapeSettings } from '#core/drawing/model'
import { perUsualPx } from '#core/drawing/fineness'
import { areaOfCubics } from '#core/geometry/area'
import { cubicsOfPath, short } from '#core/geometry/path'
import NodeFields from '~/components/lines/NodeFields.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useOutlinesStore } from '~/stores/outlines'
import { useViewStore } from '~/stores/view'
import { instrumentOf } from '~/workspace/instruments'
import { useInk } from '~/workspace/use-ink'

const store = useDrawingStore()
const view = useViewStore()
const outlines = useOutlinesStore()
const ink = useInk()

const tool = computed(() => instrumentOf(view.instrument))
const settings = computed(() => store.drawing!.settings.shapes)
/** Settings are meant at the final size; here they are told in px of the page. */
const scale = computed(() => perUsualPx(store.drawing!.page))
const digits = computed(() => Math.max(1, Math.ceil(2 - Math.log10(scale.value))))
const result = computed(() => ink.shapes.value)
const saved = computed(() => {
  const r = result.value
  return r && r.nodesBefore ? Math.round((1 - r.nodesAfter / r.nodesBefore) * 100) : 0
})
const chosen = computed(() => {
  const shape = result.value?.shapes.find((s) => s.id === view.shape)
  if (!shape) return null
  const nodes = shape.contours.reduce((n, c) => n + c.nodes.length, 0)
  const area = shape.contours.reduce((a, c) => a + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)
  return { nodes, area, contours: shape.contours.length, from: shape.from.length }
})

/** Ends keep within what they meet unless it is said otherwise. */
const tucks = computed(() => store.drawing!.settings.tuck !== false)

const setTuck = (): void => store.edit(tucks.value ? 'Let ends show' : 'Tuck ends', (draft) => void (draft.settings.tuck = !tucks.value))

const retouches = computed(() => store.drawing!.amendments?.filter((a) => a.kind === 'retouch').length ?? 0)

const forget = (): void => store.edit('Take retouches back', (draft) => void (draft.amendments = draft.amendments?.filter((a) => a.kind !== 'retouch')))

function set(label: string, recipe: (s: ShapeSettings) => void): void {
  store.edit(label, (draft) => recipe(draft.settings.shapes))
}
</script>

<template>
  <div v-if="view.instrument === 'outline' && outlines.nodes.length" class="grid content-start gap-2">
    <b class="flex h-7 items-center font-[650]">{{ outlines.nodes.length === 1 ? 'A node' : `${outlines.nodes.length} nodes` }} of the outline</b>
    <NodeFields :surface="outlines" />
    <p class="quiet">What you change here is put on again whenever the outline is made from its lines.</p>
  </div>
  <component :is="tool.settings" v-else-if="tool?.settings && tool.passes.length === 1" />
  <div v-else class="flex h-full gap-10">
    <div class="flex w-[430px] shrink-0 flex-col gap-2.5">
      <b class="flex h-6 items-center font-[650]">How lines become shapes</b>
      <div class="flex items-center justify-between">
        <label class="flex h-6 items-center gap-2.5">
          <input type="checkbox" class="h-4 w-4 accent-plum" :checked="settings.unite" data-testid="unite" @change="set(settings.unite ? 'Keep shapes apart' : 'Unite shapes by ink', (s) => void (s.unite = !s.unite))" />
          Unite shapes of the same ink
        </label>
        <label class="flex h-6 items-center gap-2.5" title="An end that meets a line keeps within it: nothing shows beyond the far edge">
          <input type="checkbox" class="h-4 w-4 accent-plum" :checked="tucks" data-testid="tuck" @change="setTuck" />
          Tuck ends under what they meet
        </label>
      </div>
      <SliderField
        label="Simplify"
        :value="settings.simplify * scale"
        :min="0"
        :max="2 * scale"
        :step="0.05 * scale"
        :digits="digits"
        unit="px"
        @look="() => undefined"
        @keep="(v) => set(`Simplify ${short(v, digits)} px`, (s) => void (s.simplify = v / scale))"
      />
      <p class="quiet">Outlines are drawn with fewer nodes, nowhere farther from the ink than this. 0 leaves them as expanded.</p>
    </div>
    <div class="flex min-w-0 flex-1 flex-col">
      <div v-if="result" class="flex h-6 items-center gap-5" data-testid="shape-numbers">
        <span><b class="number text-[13px]" data-testid="shape-count">{{ result.shapes.length }}</b> {{ result.shapes.length === 1 ? 'shape' : 'shapes' }}</span>
        <span>Nodes <b class="number text-[13px]" data-testid="nodes-before">{{ result.nodesBefore }}</b> → <b class="number text-[13px]" data-testid="nodes-after">{{ result.nodesAfter }}</b></span>
        <span>Deviation <b class="number text-[13px]" data-testid="deviation">{{ result.deviation.toFixed(3) }}</b> px</span>
      </div>
      <div v-if="result" class="mt-3 max-w-[420px]">
        <div class="h-3 overflow-hidden rounded-full bg-hair" role="img" :aria-label="`${saved} % fewer nodes`"><div class="h-full rounded-full bg-moss" :style="{ width: `${saved}%` }" /></div>
        <p class="quiet mt-1.5">{{ saved > 0 ? `${saved} % fewer nodes than expanded` : 'As many nodes as expanded' }}</p>
      </div>
      <p v-if="chosen" class="mt-2">Chosen shape: <span class="number">{{ chosen.nodes }} nodes, {{ chosen.contours }} {{ chosen.contours === 1 ? 'contour' : 'contours' }}, {{ Math.round(chosen.area) }} px², from {{ chosen.from }} {{ chosen.from === 1 ? 'line' : 'lines' }}</span></p>
      <p v-if="retouches" class="mt-1 flex items-center gap-3">
        <span><span class="number">{{ retouches }}</span> {{ retouches === 1 ? 'retouch' : 'retouches' }} of outlines<template v-if="result?.waiting">, <span class="number">{{ result.waiting }}</span> waiting: the outline no longer runs there</template></span>
        <button class="button !py-0.5" title="The outlines as the lines make them" @click="forget">Take retouches back</button>
      </p>
      <p class="quiet mt-auto">Your lines stay live beneath: change one and its shape follows.</p>
    </div>
  </div>
</template>
