<script setup lang="ts">
import { computed } from 'vue'
import type { End } from '#core/geometry/ends'
import { short } from '#core/geometry/path'
import { taperAtEnd, withTaperLength, withTip } from '#core/weight/end-tapers'
import { sizeTapers } from '#core/weight/taper'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines } from '#core/editing/change-items'
import { useGraph, wholeWidth } from './use-graph'
import { useGraphDrag } from './use-graph-drag'

/** The tapers of the line in hand: a wedge at the inner end of each, and its tip; an end without one has its wedge at the end. */
const store = useDrawingStore()
const graph = useGraph()
const { take } = useGraphDrag(graph)

const line = graph.line

const ends = computed(() => {
  if (line.value.path.closed) return []
  const { weight } = line.value
  const total = graph.total.value || 1
  const sized = sizeTapers(weight.start, weight.end, total)
  const width = wholeWidth(line.value)
  return (['first', 'last'] as const).map((end) => {
    const taper = end === 'first' ? sized.start : sized.end
    const length = taper?.length ?? 0
    const tip = width.at(end === 'first' ? 0 : total)
    return {
      end,
      on: !!taper,
      x: graph.x(end === 'first' ? length / total : 1 - length / total),
      tipX: graph.x(end === 'first' ? 0 : 1),
      tipY: graph.y(tip.left),
      name: end === 'first' ? 'start' : 'end',
      px: short(length, 0),
      share: Math.round((taperAtEnd(weight, end)?.tip ?? 0) * 100),
    }
  })
})

function pressLength(e: PointerEvent, end: End): void {
  const total = graph.total.value
  take(e, {
    label: 'Length of a taper',
    lines: [line.value.id],
    change: (weight, { at }) => withTaperLength(weight, end, (end === 'first' ? at : 1 - at) * total, total),
  })
}

function pressTip(e: PointerEvent, end: End): void {
  const full = wholeWidth({ ...line.value, weight: { ...line.value.weight, start: null, end: null } }).at(
    end === 'first' ? 0 : graph.total.value,
  ).left
  take(e, {
    label: 'Tip of a taper',
    lines: [line.value.id],
    change: (weight, { half }) => withTip(weight, end, full > 0 ? Math.abs(half) / full : 0),
  })
}

/** A taper by keyboard: arrows along make it longer or shorter, up and down its tip. */
function key(e: KeyboardEvent, end: End): void {
  const total = graph.total.value
  const sized = ends.value.find((x) => x.end === end)!
  const inward = end === 'first' ? 1 : -1
  const step = (e.shiftKey ? 0.1 : 0.02) * total
  const length = Number(sized.px)
  const { weight } = line.value
  const tip = taperAtEnd(weight, end)?.tip ?? 0
  const next = {
    ArrowRight: () => withTaperLength(weight, end, length + inward * step, total),
    ArrowLeft: () => withTaperLength(weight, end, length - inward * step, total),
    ArrowUp: () => withTip(weight, end, tip + 0.05),
    ArrowDown: () => withTip(weight, end, tip - 0.05),
    Delete: () => withTaperLength(weight, end, 0, total),
  }[e.key]
  if (!next) return
  e.preventDefault()
  e.stopPropagation()
  store.edit('Change a taper', (draft) => void changeLines(draft, [line.value.id], (l) => void (l.weight = next())))
}
</script>

<template>
  <g v-for="t in ends" :key="t.end">
    <g
      tabindex="0"
      role="button"
      class="cursor-ew-resize"
      :aria-label="
        t.on ? `Taper at the ${t.name}: ${t.px} px, tip ${t.share} %` : `No taper at the ${t.name}: drag inwards`
      "
      :data-testid="`taper-${t.name}`"
      @keydown="key($event, t.end)"
      @pointerdown="pressLength($event, t.end)"
    >
      <line
        v-if="t.on"
        :x1="t.x"
        :x2="t.x"
        :y1="graph.frame.value.top"
        :y2="graph.frame.value.bottom"
        class="stroke-plum"
        stroke-dasharray="2 4"
        opacity="0.7"
      />
      <path
        :d="`M${t.x} ${graph.frame.value.top + 9}l-5.5 -9h11z`"
        class="stroke-plum"
        :class="t.on ? 'fill-plum' : 'fill-paper'"
        stroke-width="1.4"
      />
      <circle :cx="t.x" :cy="graph.frame.value.top + 4" fill="transparent" class="grip" />
    </g>
    <g v-if="t.on" class="cursor-ns-resize" :data-testid="`tip-${t.name}`" @pointerdown="pressTip($event, t.end)">
      <circle :cx="t.tipX" :cy="t.tipY" r="4.5" class="fill-paper stroke-plum" stroke-width="1.6" />
      <circle :cx="t.tipX" :cy="t.tipY" fill="transparent" class="grip" />
    </g>
  </g>
</template>
