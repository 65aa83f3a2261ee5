<script setup lang="ts">
import { computed, ref } from 'vue'
import { ChevronDown, ChevronRight, Eye, EyeOff, GripVertical, Lock, LockOpen } from 'lucide-vue-next'
import type { Layer } from '#core/model/model'
import { useLayers } from '~/workspace/use-layers'
import { useViewStore } from '~/stores/view'
import LayerLines from './LayerLines.vue'
import LayerMenu from './LayerMenu.vue'
import RenameField from '~/components/ui/RenameField.vue'

const props = defineProps<{ layer: Layer; top: boolean; bottom: boolean }>()

const view = useViewStore()
const { change, moveBy } = useLayers()
const naming = ref(false)

const isUnfolded = computed(() => view.unfolded.includes(props.layer.id))

function unfold(): void {
  view.unfolded = isUnfolded.value
    ? view.unfolded.filter((id) => id !== props.layer.id)
    : [...view.unfolded, props.layer.id]
}

const rename = (name: string): void => change(props.layer.id, `Rename to ${name}`, (l) => void (l.name = name))

function count(): string {
  const percent = `${Math.round(props.layer.opacity * 100)}%`
  if (props.layer.kind === 'sketch') return percent
  return props.layer.opacity < 1 ? `${props.layer.items.length} · ${percent}` : String(props.layer.items.length)
}

/** Alt with an arrow moves the layer in the stack. */
function key(e: KeyboardEvent): void {
  if (!e.altKey || (e.key !== 'ArrowUp' && e.key !== 'ArrowDown')) return
  e.preventDefault()
  e.stopPropagation()
  moveBy(props.layer.id, e.key === 'ArrowUp' ? 1 : -1)
}
</script>

<template>
  <li
    class="group flex flex-wrap items-center gap-1 py-[3px] pr-2 pl-1"
    :class="[layer.id === view.activeLayer ? 'bg-blush' : '', layer.visible ? '' : 'text-mute']"
    :data-layer="layer.id"
    @keydown="key"
  >
    <span
      class="grip cursor-grab py-1 text-mute opacity-0 group-hover:opacity-100"
      title="Drag: change the order"
      aria-hidden="true"
      ><GripVertical :size="12"
    /></span>
    <button
      v-if="layer.kind === 'lines'"
      class="quiet -mx-1 rounded p-0.5"
      :title="isUnfolded ? 'Fold its lines away' : 'Its lines, to be found, named, hidden or locked one by one'"
      :aria-label="`Lines of ${layer.name}`"
      :aria-expanded="isUnfolded"
      @click="unfold"
    >
      <component :is="isUnfolded ? ChevronDown : ChevronRight" :size="14" />
    </button>
    <button
      class="quiet rounded p-1"
      :title="layer.visible ? 'Hide' : 'Show'"
      :aria-label="`${layer.visible ? 'Hide' : 'Show'} ${layer.name}`"
      @click="
        change(
          layer.id,
          layer.visible ? `Hide ${layer.name}` : `Show ${layer.name}`,
          (l) => void (l.visible = !l.visible),
        )
      "
    >
      <component :is="layer.visible ? Eye : EyeOff" :size="15" :stroke-width="1.7" />
    </button>
    <RenameField
      v-if="naming"
      class="min-w-0 flex-1"
      :value="layer.name"
      label="Name of the layer"
      @keep="rename"
      @close="naming = false"
    />
    <button
      v-else
      class="min-w-0 flex-1 truncate text-left"
      :class="layer.kind === 'sketch' ? 'text-mute' : ''"
      :title="
        layer.kind === 'sketch'
          ? layer.name
          : `${layer.name}: draw here · Double-click: rename · Alt+arrows: change the order`
      "
      @click="layer.kind !== 'sketch' && (view.activeLayer = layer.id)"
      @dblclick="naming = true"
    >
      {{ layer.name }}
    </button>
    <span class="number quiet text-[11px] whitespace-nowrap">{{ count() }}</span>
    <button
      class="quiet rounded p-1"
      :class="layer.locked ? '' : 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100'"
      :title="layer.locked ? 'Unlock' : 'Lock'"
      :aria-label="`${layer.locked ? 'Unlock' : 'Lock'} ${layer.name}`"
      @click="
        change(
          layer.id,
          layer.locked ? `Unlock ${layer.name}` : `Lock ${layer.name}`,
          (l) => void (l.locked = !l.locked),
        )
      "
    >
      <component :is="layer.locked ? Lock : LockOpen" :size="14" :stroke-width="1.7" />
    </button>
    <LayerMenu :layer="layer" :top="top" :bottom="bottom" @rename="naming = true" />
    <LayerLines v-if="layer.kind === 'lines' && isUnfolded" class="w-full" :layer="layer" />
  </li>
</template>
