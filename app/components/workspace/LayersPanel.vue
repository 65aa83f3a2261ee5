<script setup lang="ts">
import Sortable from 'sortablejs'
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { Layers, PenLine, Plus } from 'lucide-vue-next'
import { useLayers } from '~/workspace/use-layers'
import { useViewStore } from '~/stores/view'
import LayerRow from './LayerRow.vue'

const view = useViewStore()
const { layers, add, moveTo, empty, removeEmpty } = useLayers()
const list = ref<HTMLUListElement>()
/** Counts the drops, so that the rows are made anew in the order of the drawing. */
const drops = ref(0)
let sortable: Sortable | null = null

onMounted(() => {
  sortable = Sortable.create(list.value!, {
    handle: '.grip',
    animation: 120,
    forceFallback: true,
    onEnd: ({ item, oldIndex, newIndex }) => {
      drops.value++
      if (newIndex !== undefined && newIndex !== oldIndex) moveTo(item.dataset.layer!, newIndex)
    },
  })
})
onBeforeUnmount(() => sortable?.destroy())
</script>

<template>
  <section class="flex min-h-0 flex-1 flex-col">
    <h2 class="flex items-center justify-between px-3.5 pt-2.5 pb-1.5 text-[12px] font-[650]">
      Layers
      <span class="-mr-1 flex items-center gap-1">
        <button
          v-if="view.solo"
          class="rounded-full bg-plum px-2.5 py-px text-[11px] font-semibold text-white"
          title="Show the other layers again"
          @click="view.solo = false"
        >
          Alone · show all
        </button>
        <template v-if="!view.showsShapes">
          <button
            class="quiet rounded p-1"
            :class="view.laidColour && 'text-plum'"
            :aria-pressed="view.laidColour"
            title="What is being laid in a colour of its own, to tell it from pencil and ink"
            aria-label="What is being laid in a colour"
            @click="view.laidColour = !view.laidColour"
          >
            <PenLine :size="14" />
          </button>
          <button
            class="quiet rounded p-1"
            :class="view.layerColours && 'text-plum'"
            :aria-pressed="view.layerColours"
            title="Each layer in a colour of its own; the inks stay what they are"
            aria-label="Each layer in a colour"
            @click="view.layerColours = !view.layerColours"
          >
            <Layers :size="14" />
          </button>
        </template>
        <button class="quiet rounded p-1" title="Add a layer for lines" aria-label="Add a layer" @click="add">
          <Plus :size="15" />
        </button>
      </span>
    </h2>
    <ul ref="list" class="min-h-0 overflow-auto">
      <LayerRow
        v-for="(layer, i) in layers"
        :key="`${layer.id} ${drops}`"
        :layer="layer"
        :top="i === 0"
        :bottom="i === layers.length - 1"
      />
    </ul>
    <button
      v-if="empty.length"
      class="quiet mx-3.5 my-1 h-6 self-start"
      :title="empty.map((l) => l.name).join(', ')"
      @click="removeEmpty"
    >
      Delete {{ empty.length }} empty {{ empty.length === 1 ? 'layer' : 'layers' }}
    </button>
  </section>
</template>
