<script setup lang="ts">
import { computed } from 'vue'
import type { Sketch, SketchLayer } from '#core/model/model'
import { mirroredAcross, mirroredOver } from '#core/sketch/sketch-place'
import { copiedLayer, freeLayerName } from '#core/editing/layers'
import SliderField from '~/components/ui/SliderField.vue'
import TickField from '~/components/ui/TickField.vue'
import { placeOnPage } from '~/workspace/use-sketch-import'
import { useDrawingStore } from '~/stores/drawing'
import { sketchLayers } from '#core/model/find'
import { useViewStore } from '~/stores/view'

/** How the sketch in hand lies on the page, and how it is seen. */
const props = defineProps<{ layer: SketchLayer }>()
const store = useDrawingStore()
const view = useViewStore()
const sketch = computed(() => props.layer.items.at(-1)!)
const shut = computed(() => (props.layer.locked ? 'Unlock the sketch first' : undefined))

function change(recipe: (l: SketchLayer) => void): void {
  store.change((draft) => {
    const found = sketchLayers(draft).find((l) => l.id === props.layer.id)
    if (found) recipe(found)
  })
}
function keep(label: string, recipe: (l: SketchLayer) => void): void {
  change(recipe)
  store.finish(label)
}
const each =
  (map: (s: Sketch) => Sketch) =>
  (l: SketchLayer): void =>
    void (l.items = l.items.map(map))

const fit = (): void =>
  keep(
    'Fit the sketch to the page',
    each((s) => ({ ...s, ...placeOnPage(s, store.drawing!.page), angle: 0 })),
  )

function seenThrough(sketch: Sketch, through: boolean): Sketch {
  const next = { ...sketch }
  if (through) delete next.plain
  else next.plain = true
  return next
}

/** The other half of what is the same on both sides. */
function mirroredCopy(): void {
  const copy = copiedLayer(props.layer, freeLayerName(store.drawing!, `${props.layer.name}, mirrored`)) as SketchLayer
  const middle = store.drawing!.page.width / 2
  const layer = { ...copy, locked: false, items: copy.items.map((s) => mirroredAcross(s, middle)) }
  store.edit(
    'Mirrored copy of the sketch',
    (draft) => void draft.layers.splice(draft.layers.findIndex((l) => l.id === props.layer.id) + 1, 0, layer),
  )
  view.sketchLayer = layer.id
}
</script>

<template>
  <div class="grid content-start gap-1.5">
    <SliderField
      label="Strength"
      :value="Math.round(layer.opacity * 100)"
      :min="0"
      :max="100"
      :step="5"
      unit="%"
      @look="(v) => change((l) => void (l.opacity = v / 100))"
      @keep="(v) => keep(`Sketch strength ${v} %`, (l) => void (l.opacity = v / 100))"
    />
    <div class="flex flex-wrap items-center gap-1.5 pr-2">
      <button
        class="button"
        @click="keep(layer.visible ? 'Hide the sketch' : 'Show the sketch', (l) => void (l.visible = !l.visible))"
      >
        {{ layer.visible ? 'Hide' : 'Show' }}
      </button>
      <button
        class="button"
        @click="keep(layer.locked ? 'Unlock the sketch' : 'Lock the sketch', (l) => void (l.locked = !l.locked))"
      >
        {{ layer.locked ? 'Unlock' : 'Lock' }}
      </button>
      <button class="button" :disabled="!!shut" :title="shut ?? 'As large as the page, upright'" @click="fit">
        Fit to page
      </button>
      <button
        class="button"
        :disabled="!!shut"
        :title="shut ?? 'Seen from behind'"
        @click="keep('Mirror the sketch', each(mirroredOver))"
      >
        Mirror
      </button>
      <button
        class="button"
        title="A copy, mirrored about the middle of the page: the other half of what is the same on both sides"
        @click="mirroredCopy"
      >
        Mirrored copy
      </button>
      <TickField
        class="ml-1"
        :model-value="!sketch.plain"
        title="Multiplied with the paper and the sketches beneath; else it covers them"
        @update:model-value="
          (v) =>
            keep(
              v ? 'Let the sketch show what is beneath' : 'Let the sketch cover what is beneath',
              each((s) => seenThrough(s, !!v)),
            )
        "
        >See through</TickField
      >
    </div>
  </div>
</template>
