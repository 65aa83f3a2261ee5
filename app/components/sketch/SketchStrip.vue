<script setup lang="ts">
import { computed, ref } from 'vue'
import CleanSection from './CleanSection.vue'
import PageSection from './PageSection.vue'
import PlaceSection from './PlaceSection.vue'
import StraightSection from './StraightSection.vue'
import { useSketchImport } from '~/workspace/use-sketch-import'
import { useClingStore } from '~/stores/cling'
import { useDrawingStore } from '~/stores/drawing'
import { sketchLayerInHand, sketchLayers } from '#core/model/find'
import { useHaloStore } from '~/stores/halo'
import { usePaperStore } from '~/stores/paper'
import { useViewStore } from '~/stores/view'

const store = useDrawingStore()
const view = useViewStore()
const cling = useClingStore()
const halo = useHaloStore()
const paper = usePaperStore()
const { bringIn, busy } = useSketchImport()
const picker = ref<HTMLInputElement>()

const all = computed(() =>
  sketchLayers(store.drawing!)
    .filter((l) => l.items.length)
    .reverse(),
)
const layer = computed(() => (store.drawing ? sketchLayerInHand(store.drawing, view.sketchLayer) : null))
const sketch = computed(() => layer.value?.items.at(-1) ?? null)
const hasInk = computed(() => store.lines.length > 0)
const off = computed(() =>
  view.halo && halo.share !== null
    ? `${Math.round(halo.share * 100)} % lies off the pencil`
    : view.halo && cling.busy
      ? 'Reads the pencil …'
      : null,
)

function pick(e: Event): void {
  const input = e.target as HTMLInputElement
  void bringIn(...(input.files ?? []))
  input.value = ''
}
</script>

<template>
  <div class="flex h-full flex-col gap-1.5">
    <div class="flex h-6 items-center gap-2.5">
      <select
        v-if="all.length > 1"
        class="field min-w-0 max-w-[190px] !py-0 font-[650]"
        aria-label="Sketch in hand"
        :value="layer?.id"
        data-testid="sketch-in-hand"
        @change="view.sketchLayer = ($event.target as HTMLSelectElement).value"
      >
        <option v-for="l in all" :key="l.id" :value="l.id">{{ l.name }}</option>
      </select>
      <b v-else class="truncate font-[650]">{{ layer?.name ?? 'No sketch yet' }}</b>
      <span v-if="sketch" class="quiet number shrink-0"
        >{{ Math.round(sketch.width) }} x {{ Math.round(sketch.height) }} px</span
      >
      <span class="ml-auto flex shrink-0 items-center gap-1.5">
        <template v-if="sketch && hasInk">
          <span v-if="off" class="quiet" role="status" data-testid="off-pencil">{{ off }}</span>
          <button
            class="button !py-0.5"
            :aria-pressed="view.halo"
            :class="view.halo ? 'border-plum text-plum' : ''"
            title="Glows about lines that lie off the pencil, the farther the wider"
            data-testid="halo"
            @click="view.halo = !view.halo"
          >
            Halo
          </button>
          <button
            class="button !py-0.5"
            :aria-pressed="view.pencilWipe !== null"
            :class="view.pencilWipe !== null ? 'border-plum text-plum' : ''"
            title="Draw a line between the pencil and the ink"
            data-testid="pencil-wipe"
            @click="view.pencilWipe = view.pencilWipe === null ? 0.5 : null"
          >
            Wipe
          </button>
        </template>
        <button class="button !py-0.5" :disabled="busy" @click="picker?.click()">
          {{ busy ? 'Bringing it in …' : sketch ? 'Bring in another' : 'Bring in a sketch' }}
        </button>
      </span>
      <input
        ref="picker"
        type="file"
        accept="image/png,image/jpeg,image/webp,image/svg+xml"
        multiple
        class="hidden"
        data-testid="sketch-file"
        @change="pick"
      />
    </div>
    <div v-if="layer && sketch" class="grid grid-cols-[minmax(0,330px)_minmax(0,1fr)] gap-x-5">
      <PlaceSection v-if="view.instrument === 'place'" :layer="layer" />
      <StraightSection v-else :layer="layer" />
      <CleanSection :sketch="sketch">
        <button
          v-if="sketch.corners && view.instrument === 'place'"
          class="button"
          title="The photo as it was taken"
          @click="paper.asTaken()"
        >
          As it was taken
        </button>
        <button
          v-else-if="view.instrument === 'place'"
          class="button"
          :disabled="paper.looking"
          title="The sheet in a photo, seen from straight above"
          data-testid="find-paper"
          @click="paper.setPaperRight()"
        >
          {{ paper.looking ? 'Looks for the paper …' : 'Set the paper right' }}
        </button>
      </CleanSection>
    </div>
    <p v-else class="quiet max-w-[560px]">
      Bring in a scan or a photo of your pencil drawing, or drop it anywhere here. It comes in dimmed and locked under
      the ink, so that you never draw on it by mistake. No sketch? Go on to <b class="font-[650]">Lines</b>.
    </p>
    <PageSection class="mt-auto" />
  </div>
</template>
