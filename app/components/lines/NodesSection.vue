<script setup lang="ts">
import { computed } from 'vue'
import type { Component } from 'vue'
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceAround,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceAround,
  FlipHorizontal2,
  FlipVertical2,
} from 'lucide-vue-next'
import type { HandleKind } from '#core/geometry/node-kinds'
import type { Alignment } from '#core/geometry/node-sets'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import NumberField from '~/components/ui/NumberField.vue'
import { useChosenNodes } from '~/workspace/use-chosen-nodes'
import { useViewStore } from '~/stores/view'

const HANDLES = [
  { id: 'linked', title: 'Linked', help: 'Both handles turn as one: a smooth node' },
  { id: 'free', title: 'Free', help: 'Each handle by itself: a corner' },
  { id: 'retracted', title: 'Drawn in', help: 'No handles: straight up to the node' },
] as const

const ALIGN: { to: Alignment; title: string; icon: Component }[] = [
  { to: 'left', title: 'Align left', icon: AlignStartVertical },
  { to: 'centre', title: 'Align on an upright middle', icon: AlignCenterVertical },
  { to: 'right', title: 'Align right', icon: AlignEndVertical },
  { to: 'top', title: 'Align to the top', icon: AlignStartHorizontal },
  { to: 'middle', title: 'Align on a level middle', icon: AlignCenterHorizontal },
  { to: 'bottom', title: 'Align to the bottom', icon: AlignEndHorizontal },
]

const view = useViewStore()
const nodes = useChosenNodes()
const count = computed(() => nodes.places.value.length)

const kind = computed({
  get: () => nodes.handles.value ?? ('' as HandleKind),
  set: (k: HandleKind) => nodes.setHandles(k),
})

/** Inner nodes of open lines, and any node of closed ones, can be cut at. */
const canSplit = computed(() => count.value > nodes.ends.value.length)
const ends = computed(() => nodes.ends.value.length)
const closes = computed(() => ends.value === 2 && nodes.ends.value[0]!.line.id === nodes.ends.value[1]!.line.id)
</script>

<template>
  <p v-if="!count" class="quiet mt-2">
    {{ view.selection.length ? 'Choose nodes: click one, Shift+click more, or drag over paper.' : 'Click a line to see its nodes, or drag over paper to choose nodes of several lines.' }}
  </p>
  <div v-else class="grid gap-2">
    <div class="flex items-center gap-5">
      <NumberField label="x" :value="nodes.at.value?.x ?? null" unit="px" @keep="(v) => nodes.moveTo('x', v)" />
      <NumberField label="y" :value="nodes.at.value?.y ?? null" unit="px" @keep="(v) => nodes.moveTo('y', v)" />
      <ChoiceField v-model="kind" label="Handles" :choices="HANDLES" tight />
    </div>
    <div class="flex items-center gap-1" role="group" aria-label="Arrange nodes">
      <button v-for="a in ALIGN" :key="a.to" class="button !p-1.5" :title="a.title" :aria-label="a.title" :disabled="count < 2" @click="nodes.align(a.to)"><component :is="a.icon" :size="16" :stroke-width="1.6" /></button>
      <button class="button ml-2 !p-1.5" title="Space evenly across" aria-label="Space evenly across" :disabled="count < 3" @click="nodes.space('x')"><AlignHorizontalSpaceAround :size="16" :stroke-width="1.6" /></button>
      <button class="button !p-1.5" title="Space evenly down" aria-label="Space evenly down" :disabled="count < 3" @click="nodes.space('y')"><AlignVerticalSpaceAround :size="16" :stroke-width="1.6" /></button>
      <button class="button ml-2 !p-1.5" title="Flip left to right" aria-label="Flip left to right" :disabled="count < 2" @click="nodes.flip('x')"><FlipHorizontal2 :size="16" :stroke-width="1.6" /></button>
      <button class="button !p-1.5" title="Flip top to bottom" aria-label="Flip top to bottom" :disabled="count < 2" @click="nodes.flip('y')"><FlipVertical2 :size="16" :stroke-width="1.6" /></button>
    </div>
    <div class="flex items-center gap-1.5" role="group" aria-label="Ends and cuts">
      <button class="button" title="Cut the line at the chosen nodes" :disabled="!canSplit" @click="nodes.split()">Split here</button>
      <button class="button" :title="closes ? 'Close the line between its two ends' : 'Make one line of two: choose an end of each'" :disabled="ends !== 2" @click="nodes.join()">{{ closes ? 'Close the gap' : 'Join ends' }}</button>
      <button class="button" title="Lengthen the chosen ends straight on until they meet a line" :disabled="!ends" @click="nodes.extend()">Extend to a line</button>
      <button class="button" title="Bring the chosen ends onto the middle of the line near them" :disabled="!ends" @click="nodes.tuck()">Tuck under</button>
      <button class="button" title="Begin the line at its other end; its ink stays as it is" @click="nodes.reverse()">Turn round</button>
    </div>
  </div>
</template>
