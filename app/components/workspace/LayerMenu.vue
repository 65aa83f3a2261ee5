<script setup lang="ts">
import { computed, ref } from 'vue'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { Ellipsis } from 'lucide-vue-next'
import type { Layer } from '#core/model/model'
import SliderField from '~/components/ui/SliderField.vue'
import { useLayers } from '~/workspace/use-layers'
import { useViewStore } from '~/stores/view'

const props = defineProps<{ layer: Layer; top: boolean; bottom: boolean }>()
const emit = defineEmits<{ rename: [] }>()

const HEIGHT = 380

const view = useViewStore()
const layers = useLayers()
const at = ref({ top: 0, right: 0 })

const isSketch = computed(() => props.layer.kind === 'sketch')
const partner = computed(() => layers.partner(props.layer.id))
const chosen = computed(() => view.selection.length)
const soloed = computed(() => view.solo && view.activeLayer === props.layer.id)

/** The panel stands beside its button, wherever the list is scrolled to. */
function place(e: MouseEvent): void {
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  at.value = {
    top: Math.max(8, Math.min(box.bottom + 4, window.innerHeight - HEIGHT)),
    right: window.innerWidth - box.right,
  }
}

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
</script>

<template>
  <Popover v-slot="{ open, close }">
    <PopoverButton
      class="quiet rounded p-1"
      :class="open ? '' : 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100'"
      :title="`More of ${layer.name}`"
      :aria-label="`More of ${layer.name}`"
      @click="place"
    >
      <Ellipsis :size="15" />
    </PopoverButton>
    <PopoverPanel
      focus
      class="fixed z-40 w-[300px] rounded-xl border border-hair bg-raise p-1.5 shadow-xl"
      :style="{ top: `${at.top}px`, right: `${at.right}px` }"
    >
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
