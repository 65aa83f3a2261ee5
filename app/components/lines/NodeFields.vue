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
import type { NodeSurface } from '~/workspace/use-chosen-nodes'
import { useChosenNodes } from '~/workspace/use-chosen-nodes'

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

/** Place, handles and arrangement of chosen nodes. */
const props = defineProps<{ surface: NodeSurface }>()

const nodes = useChosenNodes(props.surface)
const count = computed(() => nodes.places.value.length)

const kind = computed({
  get: () => nodes.handles.value ?? ('' as HandleKind),
  set: (k: HandleKind) => nodes.setHandles(k),
})
</script>

<template>
  <div class="flex items-center gap-5">
    <NumberField label="x" :value="nodes.at.value?.x ?? null" unit="px" @keep="(v) => nodes.moveTo('x', v)" />
    <NumberField label="y" :value="nodes.at.value?.y ?? null" unit="px" @keep="(v) => nodes.moveTo('y', v)" />
    <ChoiceField v-model="kind" label="Handles" :choices="HANDLES" tight />
  </div>
  <div class="flex items-center gap-1" role="group" aria-label="Arrange nodes">
    <button
      v-for="a in ALIGN"
      :key="a.to"
      class="button !p-1.5"
      :title="a.title"
      :aria-label="a.title"
      :disabled="count < 2"
      @click="nodes.align(a.to)"
    >
      <component :is="a.icon" :size="16" :stroke-width="1.6" />
    </button>
    <button
      class="button ml-2 !p-1.5"
      title="Space evenly across"
      aria-label="Space evenly across"
      :disabled="count < 3"
      @click="nodes.space('x')"
    >
      <AlignHorizontalSpaceAround :size="16" :stroke-width="1.6" />
    </button>
    <button
      class="button !p-1.5"
      title="Space evenly down"
      aria-label="Space evenly down"
      :disabled="count < 3"
      @click="nodes.space('y')"
    >
      <AlignVerticalSpaceAround :size="16" :stroke-width="1.6" />
    </button>
    <button
      class="button ml-2 !p-1.5"
      title="Flip left to right"
      aria-label="Flip left to right"
      :disabled="count < 2"
      @click="nodes.flip('x')"
    >
      <FlipHorizontal2 :size="16" :stroke-width="1.6" />
    </button>
    <button
      class="button !p-1.5"
      title="Flip top to bottom"
      aria-label="Flip top to bottom"
      :disabled="count < 2"
      @click="nodes.flip('y')"
    >
      <FlipVertical2 :size="16" :stroke-width="1.6" />
    </button>
  </div>
</template>
