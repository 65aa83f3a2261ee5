<script setup lang="ts">
import { seenLines } from '#core/model/queries'
import { computed, shallowRef, watch } from 'vue'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Touch } from '#core/relations/touches'
import { touchesOf } from '#core/relations/touches'
import { useDrawingStore } from '~/stores/drawing'
import { findLine } from '#core/model/find'
import { useStudioStore } from '~/stores/studio'
import { useGraph } from './use-graph'

/** Where other lines touch the one in hand, on the axis. */
const store = useDrawingStore()
const studio = useStudioStore()
const graph = useGraph()

const WORDS = { meets: 'meets', met: 'met by', crosses: 'crosses' } as const
/** A letter of a label is about so wide, px. */
const LETTER = 6

const touches = shallowRef<(Touch & { text: string })[]>([])
/** More than these hide each other. */
const MOST = 40
let looked: { line: Line; paths: Path[] } | null = null

/** A line has no name of its own: its number in its layer, and the layer where there are several. */
function nameOf(id: string): string {
  const found = findLine(store.drawing!, id)
  if (!found) return 'a line'
  const several = store.drawing!.layers.filter((l) => l.kind === 'lines').length > 1
  return `line ${found.index + 1}${several ? ` of ${found.layer.name}` : ''}`
}

const same = (a: readonly Path[], b: readonly Path[]): boolean => a.length === b.length && a.every((p, i) => p === b[i])
// While a hand drags, and after weights alone have changed, nothing touches anywhere else.
watch(
  [() => graph.line.value.path, () => (store.changing ? null : store.drawing?.layers)],
  ([, layers]) => {
    if (!layers) return
    const all = seenLines({ layers })
    const paths = all.map((l) => l.path)
    if (looked && looked.line.path === graph.line.value.path && same(looked.paths, paths)) return
    looked = { line: graph.line.value, paths }
    touches.value = touchesOf(graph.line.value, all, studio.preferences.contact)
      .slice(0, MOST)
      .map((t) => ({ ...t, text: `${WORDS[t.how]} ${nameOf(t.by)}` }))
  },
  { immediate: true },
)

/** A mark reaches so far to either side, px. */
const MARK = 6

/** Words stand where they lie over no other words and no mark: to the right of their mark, else to its left, else only on pointing. */
const shown = computed(() => {
  const { left, right } = graph.frame.value
  const marks = touches.value.map((t) => ({ x: graph.x(t.at), text: t.text }))
  const taken = marks
    .filter(({ x }) => x >= left - 1 && x <= right + 1)
    .map(({ x }): [number, number] => [x - MARK, x + MARK])
  const isFree = (from: number, to: number): boolean =>
    from >= left && to <= right && taken.every(([a, b]) => to <= a || from >= b)
  return marks.map(({ x, text }) => {
    const width = text.length * LETTER
    const inside = x >= left - 1 && x <= right + 1
    const [after, before] = [isFree(x + MARK, x + 8 + width + 2), isFree(x - 8 - width - 2, x - MARK)]
    const side = !inside ? null : after ? 'right' : before ? 'left' : null
    if (side === 'right') taken.push([x, x + 8 + width + 2])
    if (side === 'left') taken.push([x - 8 - width - 2, x])
    return { x, text, side, inside }
  })
})
</script>

<template>
  <template v-for="(t, i) in shown" :key="i">
    <g v-if="t.inside" data-testid="touch">
      <title>{{ t.text }}</title>
      <path :d="`M${t.x} ${graph.frame.value.bottom}l5 8h-10z`" class="fill-amber" />
      <text
        v-if="t.side"
        :x="t.side === 'right' ? t.x + 8 : t.x - 8"
        :y="graph.frame.value.bottom + 9"
        :text-anchor="t.side === 'right' ? 'start' : 'end'"
        class="fill-mute text-[10.5px]"
        >{{ t.text }}</text
      >
    </g>
  </template>
</template>
