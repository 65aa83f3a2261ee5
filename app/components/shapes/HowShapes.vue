<script setup lang="ts">
import { computed } from 'vue'
import type { ShapeSettings } from '#core/model/model'
import { perUsualPx } from '#core/model/fineness'
import { short } from '#core/geometry/path'
import SliderField from '~/components/ui/SliderField.vue'
import { useDrawingStore } from '~/stores/drawing'

/** How all lines become shapes. */
const store = useDrawingStore()
const settings = computed(() => store.drawing!.settings.shapes)
/** Settings are meant at the final size; here they are told in px of the page. */
const scale = computed(() => perUsualPx(store.drawing!.page))
const digits = computed(() => Math.max(2, Math.ceil(2 - Math.log10(scale.value))))
/** Degrees from which on a joint is a corner, where nothing else is said. */
const CORNER = 14
const mm = computed(() => short((settings.value.simplify * scale.value) / store.drawing!.page.pxPerMm, 3))

/** Ends keep within what they meet unless it is said otherwise. */
const tucks = computed(() => store.drawing!.settings.tuck !== false)

const setTuck = (): void =>
  store.edit(tucks.value ? 'Let ends show' : 'Tuck ends', (draft) => void (draft.settings.tuck = !tucks.value))

function set(label: string, recipe: (s: ShapeSettings) => void): void {
  store.edit(label, (draft) => recipe(draft.settings.shapes))
}
</script>

<template>
  <div class="flex w-[390px] shrink-0 flex-col gap-2">
    <b class="flex h-6 items-center font-[650]">How lines become shapes</b>
    <div class="flex items-center justify-between">
      <label class="flex h-6 items-center gap-2.5">
        <input
          type="checkbox"
          class="h-4 w-4 accent-plum"
          :checked="settings.unite"
          data-testid="unite"
          @change="set(settings.unite ? 'Keep shapes apart' : 'Unite shapes by ink', (s) => void (s.unite = !s.unite))"
        />
        Unite shapes of the same ink
      </label>
      <label
        class="flex h-6 items-center gap-2.5"
        title="An end that meets a line keeps within it: nothing shows beyond the far edge"
      >
        <input type="checkbox" class="h-4 w-4 accent-plum" :checked="tucks" data-testid="tuck" @change="setTuck" />
        Tuck ends
      </label>
    </div>
    <SliderField
      label="Simplify"
      :value="settings.simplify * scale"
      :min="0"
      :max="2 * scale"
      :step="0.01 * scale"
      :digits="digits"
      unit="px"
      @look="() => undefined"
      @keep="(v) => set(`Simplify ${short(v, digits)} px`, (s) => void (s.simplify = v / scale))"
    />
    <SliderField
      label="Corners from"
      title="Joints of an outline that turn by more stay corners; softer ones are smoothed over"
      :value="settings.corner ?? CORNER"
      :min="1"
      :max="90"
      :step="1"
      unit="°"
      @look="() => undefined"
      @keep="(v) => set(`Corners from ${v}°`, (s) => void (s.corner = v))"
    />
    <p class="quiet">
      Fewer nodes, nowhere farther from the ink than {{ settings.simplify ? `${mm} mm` : '0: as expanded' }}.
    </p>
  </div>
</template>
