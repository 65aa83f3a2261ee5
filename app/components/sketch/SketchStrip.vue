<script setup lang="ts">
import { computed, ref } from 'vue'
import CleanSection from './CleanSection.vue'
import PageSection from './PageSection.vue'
import SliderField from '~/components/ui/SliderField.vue'
import { usePaper } from '~/workspace/use-paper'
import { useSketchImport } from '~/workspace/use-sketch-import'
import { useDrawingStore } from '~/stores/drawing'
import { sketchLayers } from '~/stores/find'

const store = useDrawingStore()
const { bringIn, busy } = useSketchImport()
const { looking, setPaperRight, asTaken } = usePaper()
const picker = ref<HTMLInputElement>()

const layer = computed(() => (store.drawing ? (sketchLayers(store.drawing).at(-1) ?? null) : null))
const sketch = computed(() => layer.value?.items.at(-1) ?? null)

function onLayer(label: string, recipe: (l: NonNullable<typeof layer.value>) => void, keep = true): void {
  const id = layer.value?.id
  const change = (draft: NonNullable<typeof store.drawing>): void => {
    const found = sketchLayers(draft).find((l) => l.id === id)
    if (found) recipe(found)
  }
  if (!keep) {
    store.change(change)
    return
  }
  store.change(change)
  store.finish(label)
}

function fit(): void {
  onLayer('Fit the sketch to the page', (l) => {
    const s = l.items.at(-1)
    const page = store.drawing!.page
    if (!s) return
    const k = Math.min(page.width / s.width, page.height / s.height)
    Object.assign(s, { width: s.width * k, height: s.height * k, x: (page.width - s.width * k) / 2, y: (page.height - s.height * k) / 2, angle: 0 })
  })
}

function pick(e: Event): void {
  const input = e.target as HTMLInputElement
  void bringIn(...(input.files ?? []))
  input.value = ''
}
</script>

<template>
  <div class="flex h-full flex-col gap-1.5">
    <div class="flex h-6 items-center gap-3.5">
      <b class="font-[650]">{{ layer?.name ?? 'No sketch yet' }}</b>
      <span v-if="sketch" class="quiet number">{{ Math.round(sketch.width) }} x {{ Math.round(sketch.height) }} px on the page</span>
      <button class="button ml-auto !py-0.5" :disabled="busy" @click="picker?.click()">{{ busy ? 'Bringing it in …' : sketch ? 'Bring in another' : 'Bring in a sketch' }}</button>
      <input ref="picker" type="file" accept="image/png,image/jpeg,image/webp" multiple class="hidden" data-testid="sketch-file" @change="pick" />
    </div>
    <div v-if="layer" class="grid grid-cols-[minmax(0,300px)_minmax(0,1fr)] gap-x-6">
      <div class="grid content-start gap-1.5">
        <SliderField
          label="Strength"
          :value="Math.round(layer.opacity * 100)"
          :min="0"
          :max="100"
          :step="5"
          unit="%"
          @look="(v) => onLayer('', (l) => void (l.opacity = v / 100), false)"
          @keep="(v) => onLayer(`Sketch strength ${v} %`, (l) => void (l.opacity = v / 100))"
        />
        <div class="flex flex-wrap gap-1.5">
          <button class="button" @click="onLayer(layer.visible ? 'Hide the sketch' : 'Show the sketch', (l) => void (l.visible = !l.visible))">{{ layer.visible ? 'Hide' : 'Show' }}</button>
          <button class="button" @click="onLayer(layer.locked ? 'Unlock the sketch' : 'Lock the sketch', (l) => void (l.locked = !l.locked))">{{ layer.locked ? 'Unlock' : 'Lock' }}</button>
          <button class="button" :disabled="layer.locked" :title="layer.locked ? 'Unlock the sketch first' : undefined" @click="fit">Fit to page</button>
          <button v-if="sketch && !sketch.corners" class="button" :disabled="looking" title="The sheet in a photo, seen from straight above" data-testid="find-paper" @click="setPaperRight(sketch)">{{ looking ? 'Looks for the paper …' : 'Set the paper right' }}</button>
          <button v-else-if="sketch" class="button" title="The photo as it was taken" @click="asTaken(sketch)">As it was taken</button>
        </div>
      </div>
      <CleanSection v-if="sketch" :sketch="sketch" />
    </div>
    <p v-else class="quiet max-w-[560px]">Bring in a scan or a photo of your pencil drawing, or drop it anywhere here. It comes in dimmed and locked under the ink, so that you never draw on it by mistake. No sketch? Go on to <b class="font-[650]">Lines</b>.</p>
    <PageSection class="mt-auto" />
  </div>
</template>
