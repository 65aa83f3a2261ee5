<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { Eye, EyeOff, Lock, LockOpen, Plus } from 'lucide-vue-next'
import type { Layer } from '#core/drawing/model'
import { newLinesLayer } from '#core/drawing/create'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

const store = useDrawingStore()
const view = useViewStore()
const naming = ref<string | null>(null)
const text = ref('')

/** Top of the stack first, as it lies on the page. */
const layers = computed(() => [...(store.drawing?.layers ?? [])].reverse())

function change(id: string, label: string, recipe: (layer: Layer) => void): void {
  store.edit(label, (draft) => {
    const layer = draft.layers.find((l) => l.id === id)
    if (layer) recipe(layer)
  })
}

function add(): void {
  const n = (store.drawing?.layers.filter((l) => l.kind === 'lines').length ?? 0) + 1
  const layer = newLinesLayer(`Lines ${n}`)
  store.edit('Add a layer', (draft) => {
    draft.layers.push(layer)
  })
  view.activeLayer = layer.id
}

async function startNaming(layer: Layer): Promise<void> {
  naming.value = layer.id
  text.value = layer.name
  await nextTick()
  document.querySelector<HTMLInputElement>('[data-naming]')?.select()
}

function endNaming(keep: boolean): void {
  const id = naming.value
  naming.value = null
  const name = text.value.trim()
  const layer = store.drawing?.layers.find((l) => l.id === id)
  if (keep && layer && name && name !== layer.name) change(layer.id, `Rename to ${name}`, (l) => void (l.name = name))
}

function count(layer: Layer): string {
  if (layer.kind !== 'sketch') return String(layer.items.length)
  const percent = `${Math.round(layer.opacity * 100)}%`
  return layer.locked ? `locked · ${percent}` : percent
}
</script>

<template>
  <section class="flex min-h-0 flex-1 flex-col">
    <h2 class="flex items-center justify-between px-3.5 pt-2.5 pb-1.5 text-[12px] font-[650]">
      Layers
      <button class="quiet -mr-1 rounded p-1" title="Add a layer for lines" aria-label="Add a layer" @click="add"><Plus :size="15" /></button>
    </h2>
    <ul class="min-h-0 overflow-auto">
      <li
        v-for="layer in layers"
        :key="layer.id"
        class="group flex items-center gap-1.5 py-[3px] pr-3 pl-2.5"
        :class="[layer.id === view.activeLayer ? 'bg-blush' : '', layer.visible ? '' : 'text-mute']"
      >
        <button class="quiet rounded p-1" :title="layer.visible ? 'Hide' : 'Show'" :aria-label="`${layer.visible ? 'Hide' : 'Show'} ${layer.name}`" @click="change(layer.id, layer.visible ? `Hide ${layer.name}` : `Show ${layer.name}`, (l) => void (l.visible = !l.visible))">
          <component :is="layer.visible ? Eye : EyeOff" :size="15" :stroke-width="1.7" />
        </button>
        <input v-if="naming === layer.id" v-model="text" data-naming class="field min-w-0 flex-1 !py-0" aria-label="Name of the layer" maxlength="120" @blur="endNaming(true)" @keydown.enter="endNaming(true)" @keydown.esc.stop="endNaming(false)" />
        <button
          v-else
          class="min-w-0 flex-1 truncate text-left"
          :class="layer.kind === 'sketch' ? 'text-mute' : ''"
          :title="layer.kind === 'lines' ? `${layer.name}: draw here · Double-click: rename` : layer.name"
          @click="layer.kind === 'lines' && (view.activeLayer = layer.id)"
          @dblclick="startNaming(layer)"
        >
          {{ layer.name }}
        </button>
        <span class="number quiet text-[11px]">{{ count(layer) }}</span>
        <button
          class="quiet rounded p-1"
          :class="layer.locked ? '' : 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100'"
          :title="layer.locked ? 'Unlock' : 'Lock'"
          :aria-label="`${layer.locked ? 'Unlock' : 'Lock'} ${layer.name}`"
          @click="change(layer.id, layer.locked ? `Unlock ${layer.name}` : `Lock ${layer.name}`, (l) => void (l.locked = !l.locked))"
        >
          <component :is="layer.locked ? Lock : LockOpen" :size="14" :stroke-width="1.7" />
        </button>
      </li>
    </ul>
  </section>
</template>
