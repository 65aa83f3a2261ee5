<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import type { Line, Path } from '#core/drawing/model'
import type { Touch } from '#core/weight/touches'
import { touchesOf } from '#core/weight/touches'
import { useDrawingStore } from '~/stores/drawing'
import { findLine } from '~/stores/find'
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
    const all = layers.flatMap((l) => (l.kind === 'lines' && l.visible ? l.items : []))
    const paths = all.map((l) => l.path)
    if (looked && looked.line.path === graph.line.value.path && same(looked.paths, paths)) return
    looked = { line: graph.line.value, paths }
    touches.value = touchesOf(graph.line.value, all, studio.preferences.contact)
      .slice(0, MOST)
      .map((t) => ({ ...t, text: `${WORDS[t.how]} ${nameOf(t.by)}` }))
  },
  { immediate: true },
)

const shown = computed(() => {
  let free = -Infinity
  return touches.value.map((t) => {
    const x = graph.x(t.at)
    const { text } = t
    const width = text.length * LETTER
    const right = x + 8 + width < graph.frame.value.right
    const from = right ? x : x - width - 8
    const labelled = from > free + 4
    if (labelled) free = Math.max(x + 8, from + width + 8)
    return { x, text, labelled, right, inside: x >= graph.frame.value.left - 1 && x <= graph.frame.value.right + 1 }
  })
})
</script>

<template>
  <template v-for="(t, i) in shown" :key="i">
    <g v-if="t.inside" data-testid="touch">
      <title>{{ t.text }}</title>
      <path :d="`M${t.x} ${graph.frame.value.bottom}l5 8h-10z`" class="fill-amber" />
      <text v-if="t.labelled" :x="t.right ? t.x + 8 : t.x - 8" :y="graph.frame.value.bottom + 9" :text-anchor="t.right ? 'start' : 'end'" class="fill-mute text-[10.5px]">{{ t.text }}</text>
    </g>
  </template>
</template>
