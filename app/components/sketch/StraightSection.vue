<script setup lang="ts">
import { computed } from 'vue'
import type { Sketch, SketchLayer } from '#core/model/model'
import { changeSketchAndPage } from '#core/editing/page-of-sketch'
import { turnedBy, uncropped } from '#core/sketch/sketch-place'
import NumberField from '~/components/ui/NumberField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { usePaperStore } from '~/stores/paper'
import { useViewStore } from '~/stores/view'

/** What makes a sketch straight: level, its paper set right, cropped; by the instrument that is in hand. */
const props = defineProps<{ layer: SketchLayer }>()
const store = useDrawingStore()
const view = useViewStore()
const paper = usePaperStore()
const sketch = computed(() => props.layer.items.at(-1)!)
const shut = computed(() => (props.layer.locked ? 'Unlock the sketch first' : undefined))

const change = (label: string, to: (s: Sketch) => Sketch): void =>
  store.edit(label, (draft) => changeSketchAndPage(draft, sketch.value.id, to))
const turn = (by: number): void => change('Turn the sketch', (s) => turnedBy(s, by))
</script>

<template>
  <div class="grid content-start gap-1.5">
    <button
      v-if="layer.locked"
      class="button justify-self-start"
      @click="
        store.edit('Unlock the sketch', (draft) => void (draft.layers.find((l) => l.id === layer.id)!.locked = false))
      "
    >
      Unlock the sketch
    </button>
    <template v-if="view.instrument === 'level'">
      <p class="quiet">Draw along an edge that should be level or upright.</p>
      <div class="flex flex-wrap items-center gap-1.5">
        <NumberField
          label="Turned"
          unit="°"
          :digits="1"
          :value="layer.locked ? null : sketch.angle"
          @keep="(v) => turn(v - sketch.angle)"
        />
        <button class="button" :disabled="!!shut" title="A quarter turn to the left" @click="turn(-90)">↺ 90°</button>
        <button class="button" :disabled="!!shut" title="A quarter turn to the right" @click="turn(90)">↻ 90°</button>
      </div>
    </template>
    <template v-else-if="view.instrument === 'paper'">
      <p class="quiet">A photo taken at a slant: put the marks on the four corners of the sheet.</p>
      <div class="flex flex-wrap items-center gap-1.5">
        <button
          class="button-strong !py-1"
          :disabled="!paper.isLaid || !!shut"
          :title="shut"
          data-testid="set-right"
          @click="paper.keep()"
        >
          Set right
        </button>
        <button
          class="button"
          :disabled="paper.looking || !!sketch.corners"
          :title="sketch.corners ? 'Take the photo as it was taken first' : 'Looks for a sheet on something darker'"
          data-testid="offer-corners"
          @click="paper.offer(true)"
        >
          {{ paper.looking ? 'Looks for them …' : 'Find the corners' }}
        </button>
        <button v-if="sketch.corners" class="button" :disabled="!!shut" :title="shut" @click="paper.asTaken()">
          As it was taken
        </button>
      </div>
    </template>
    <template v-else>
      <p class="quiet">Draw a box about what is to be kept. The picture itself stays whole.</p>
      <button
        v-if="sketch.crop"
        class="button justify-self-start"
        :disabled="!!shut"
        :title="shut"
        @click="change('All of the sketch again', uncropped)"
      >
        All of it again
      </button>
    </template>
  </div>
</template>
