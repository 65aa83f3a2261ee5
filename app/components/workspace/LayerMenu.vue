<script setup lang="ts">
import { computed } from 'vue'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { Ellipsis } from 'lucide-vue-next'
import type { Layer } from '#core/model/model'
import SliderField from '~/components/ui/SliderField.vue'
import { useLayers } from '~/workspace/use-layers'
import { useViewStore } from '~/stores/view'
import { usePlaced } from '~/workspace/use-placed'

const props = defineProps<{ layer: Layer; top: boolean; bottom: boolean }>()
const emit = defineEmits<{ rename: [] }>()

const view = useViewStore()
const layers = useLayers()

const isSketch = computed(() => props.layer.kind === 'sketch')
const partner = computed(() => layers.partner(props.layer.id))
const chosen = computed(() => view.selection.length)
const soloed = computed(() => view.solo && view.activeLayer === props.layer.id)

function solo(): void {
  view.activeLayer = props.layer.id
  view.solo = !soloed.value
}

const actions = computed(() => [
  { title: 'Rename', run: () => emit('rename') },
  ...(isSketch.value ? [] : [{ title: soloed.value ? 'Show the others again' : 'Show this layer alone', run: solo }]),
  ...(props.layer.kind === 'lines' && chosen.value
    ? [
        {
          title: chosen.value > 1 ? `Move the ${chosen.value} chosen lines here` : 'Move the chosen line here',
          run: () => layers.takeChosen(props.layer.id),
        },
      ]
    : []),
  { title: 'Duplicate', run: () => layers.duplicate(props.layer.id) },
  { title: 'Keep a safe copy', run: () => layers.keepCopy(props.layer.id) },
  ...(partner.value
    ? [{ title: `Combine with ${partner.value.name}`, run: () => layers.combine(props.layer.id) }]
    : []),
  ...(props.top ? [] : [{ title: 'Move up', run: () => layers.moveBy(props.layer.id, 1) }]),
  ...(props.bottom ? [] : [{ title: 'Move down', run: () => layers.moveBy(props.layer.id, -1) }]),
  { title: 'Delete', run: () => layers.remove(props.layer.id) },
])

const { anchor, panel, styles } = usePlaced('bottom-end')
</script>

<template>
  <Popover v-slot="{ open, close }">
    <PopoverButton
      ref="anchor"
      class="quiet rounded p-1"
      :class="open ? '' : 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100'"
      :title="`More of ${layer.name}`"
      :aria-label="`More of ${layer.name}`"
    >
      <Ellipsis :size="15" />
    </PopoverButton>
    <PopoverPanel ref="panel" :style="styles" focus class="pop w-[300px] p-1.5">
      <SliderField
        class="px-2.5 py-1.5"
        label="Strength"
        :value="Math.round(layer.opacity * 100)"
        :min="5"
        :max="100"
        :step="5"
        unit="%"
        @look="(v) => layers.dim(layer.id, v / 100, false)"
        @keep="(v) => layers.dim(layer.id, v / 100, true)"
      />
      <button
        v-for="a in actions"
        :key="a.title"
        class="block w-full truncate rounded-lg px-2.5 py-1.5 text-left hover:bg-blush focus-visible:bg-blush"
        @click="(close(), a.run())"
      >
        {{ a.title }}
      </button>
    </PopoverPanel>
  </Popover>
</template>
