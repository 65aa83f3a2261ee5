<script setup lang="ts">
import { computed } from 'vue'
import { perUsualPx } from '#core/model/fineness'
import { colourIn } from '#core/model/inks'
import type { Fineness } from '#core/model/model'
import { originOf } from '#core/model/image-ids'
import { seenLines } from '#core/model/queries'
import { cubicsOfPath, short } from '#core/geometry/path'
import { placesIn } from '#core/ink/stack/own-fineness'
import { newId } from '#core/new-id'
import type { IslandOfInk } from '~/instruments/worktop'
import InkField from '~/components/ui/InkField.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { chosenAmong } from '~/workspace/islands'
import { useApart } from '~/workspace/use-apart'
import { useInk } from '~/workspace/use-ink'

/** The islands of the shapes: a list to choose from, and what the chosen ones are and have of their own. */
const store = useDrawingStore()
const view = useViewStore()
const ink = useInk()
const apart = useApart()

/** So many islands are listed. */
const MOST = 200

/** Listed only for somebody who looks at them: what is worked out here holds up the hand. */
const islands = computed(() => (view.folds.islands && !view.islands.length ? [] : ink.islands()))
const chosen = computed(() => chosenAmong(islands.value, view.islands))
const sorted = computed(() => islands.value.toSorted((a, b) => b.area - a.area))
const squareMm = (area: number): string => short(area / store.drawing!.page.pxPerMm ** 2, 1)
const colourOf = (island: IslandOfInk): string => colourIn(store.drawing!.inks, island.shape.ink)

/** Nodes before and after and the measured deviation of islands. */
const numbers = computed(() => {
  const contours = chosen.value.flatMap((i) => i.contours)
  const measures = contours.map((c) => ink.measureOf(c) ?? { nodes: c.nodes.length, deviation: 0 })
  return {
    before: measures.reduce((n, m) => n + m.nodes, 0),
    after: contours.reduce((n, c) => n + c.nodes.length, 0),
    deviation: Math.max(0, ...measures.map((m) => m.deviation)),
    area: chosen.value.reduce((n, i) => n + i.area, 0),
  }
})

const scale = computed(() => perUsualPx(store.drawing!.page))
/** The lines in each chosen island, and a place of each. */
const within = computed(() =>
  chosen.value.map((i) => {
    const from = new Set(i.shape.from.map(originOf))
    return placesIn(
      i.contours.map((c) => cubicsOfPath({ ...c, closed: true })),
      seenLines(store.drawing!).filter((l) => from.has(l.id)),
    )
  }),
)
const lines = computed(() => [...new Set(within.value.flatMap((w) => w.map((p) => p.line)))])
/** Tolerances of their own that the chosen islands have. */
const own = computed(() => {
  const here = new Set(lines.value)
  return (store.drawing!.amendments ?? []).filter((a): a is Fineness => a.kind === 'fineness' && here.has(a.line))
})

function setOwn(simplify: number | null): void {
  const before = new Set(own.value.map((a) => a.id))
  const fresh =
    simplify === null
      ? []
      : within.value.flatMap(([first]): Fineness[] =>
          first ? [{ id: newId(), kind: 'fineness', ...first, simplify: simplify / scale.value }] : [],
        )
  store.edit(
    simplify === null ? 'Simplify as the rest' : `Simplify these ${short(simplify, 2)} px`,
    (draft) => void (draft.amendments = [...(draft.amendments ?? []).filter((a) => !before.has(a.id)), ...fresh]),
  )
}

function choose(key: string, more: boolean): void {
  view.islands = more
    ? view.islands.includes(key)
      ? view.islands.filter((k) => k !== key)
      : [...view.islands, key]
    : [key]
}
</script>

<template>
  <div v-if="chosen.length" class="flex min-h-0 flex-col gap-2" data-testid="chosen-islands">
    <p>
      <b class="font-[650]">{{ chosen.length === 1 ? 'This island' : `These ${chosen.length} islands` }}</b>: nodes
      <span class="number">{{ numbers.before }} → {{ numbers.after }}</span
      >, deviation <span class="number">{{ numbers.deviation.toFixed(3) }} px</span>,
      <span class="number">{{ squareMm(numbers.area) }} mm²</span>,
      {{ lines.length === 1 ? 'one line' : `${lines.length} lines` }}
    </p>
    <div class="flex items-center gap-3">
      <SliderField
        class="max-w-[380px] flex-1"
        label="Simplify these"
        :value="(own[0]?.simplify ?? store.drawing!.settings.shapes.simplify) * scale"
        :min="0"
        :max="2 * scale"
        :step="0.01 * scale"
        :digits="2"
        unit="px"
        @look="() => undefined"
        @keep="setOwn"
      />
      <button v-if="own.length" class="button !py-0.5" @click="setOwn(null)">As the rest</button>
    </div>
    <div class="flex items-center gap-2">
      <button class="button" :disabled="!lines.length" @click="view.select(lines)">Choose its lines</button>
      <button
        v-if="!apart.isApart(lines)"
        class="button"
        :disabled="!lines.length"
        title="They unite with each other, and with nothing else"
        @click="apart.keep(lines)"
      >
        Keep apart
      </button>
      <button v-else class="button" @click="apart.unite(lines)">Unite with the rest</button>
      <button class="button" @click="view.islands = []">Let go</button>
    </div>
  </div>
  <div v-else-if="view.selection.length" class="flex items-center gap-2">
    <span>{{ view.selection.length === 1 ? 'The chosen line' : `${view.selection.length} chosen lines` }}</span>
    <button
      v-if="!apart.isApart(view.selection)"
      class="button"
      title="They unite with each other, and with nothing else: a figure in front of another"
      @click="apart.keep(view.selection)"
    >
      Keep apart
    </button>
    <button v-else class="button" @click="apart.unite(view.selection)">Unite with the rest</button>
    <InkField />
  </div>
  <ul
    v-else-if="islands.length"
    class="grid min-h-0 flex-1 auto-rows-min grid-cols-2 gap-x-2 overflow-auto"
    aria-label="Islands"
    data-testid="islands"
  >
    <li v-for="(island, i) in sorted.slice(0, MOST)" :key="island.key">
      <button
        class="flex h-6 w-full items-center gap-1.5 rounded-[5px] px-1.5 text-left hover:bg-raise"
        title="Click: choose · Shift+click: several"
        @click="choose(island.key, $event.shiftKey)"
      >
        <span
          class="h-2.5 w-2.5 shrink-0 rounded-full border border-hair"
          :style="{ background: colourOf(island) }"
          aria-hidden="true"
        />
        <span class="flex-1 whitespace-nowrap">Island {{ i + 1 }}</span>
        <span class="quiet number whitespace-nowrap"
          >{{ island.nodes }} {{ island.nodes === 1 ? 'node' : 'nodes' }}</span
        >
        <span class="quiet number w-[72px] whitespace-nowrap text-right">{{ squareMm(island.area) }} mm²</span>
      </button>
    </li>
    <li v-if="sorted.length > MOST" class="quiet px-1.5">and {{ sorted.length - MOST }} smaller ones</li>
  </ul>
</template>
