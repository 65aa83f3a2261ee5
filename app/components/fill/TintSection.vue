<script setup lang="ts">
import { computed } from 'vue'
import SliderField from '~/components/ui/SliderField.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { useChosenLines } from '~/workspace/use-chosen-lines'

/** Lines in a darker tone of the fill that they bound: the chosen ones, or all about which nothing else is said. */
const store = useDrawingStore()
const view = useViewStore()
const chosen = useChosenLines()
const some = computed(() => view.selection.length > 0)
const tint = computed(() =>
  Math.round(
    100 *
      (some.value
        ? (chosen.lines.value[0]?.tint ?? store.drawing!.settings.tint ?? 0)
        : (store.drawing!.settings.tint ?? 0)),
  ),
)

function set(percent: number): void {
  const to = percent / 100
  if (some.value) chosen.change(to ? `Tint ${percent} %` : 'No tint', (l) => void (l.tint = to))
  else
    store.edit(to ? `Tint all lines ${percent} %` : 'No tint', (draft) => {
      if (to) draft.settings.tint = to
      else delete draft.settings.tint
    })
}
const asAll = (): void => chosen.change('Tint as all lines', (l) => void delete l.tint)
</script>

<template>
  <div class="flex items-center gap-3">
    <SliderField
      class="flex-1"
      :label="some ? 'Tint these' : 'Tint lines'"
      title="A darker tone of the fill that a line bounds; 0 leaves it in its own ink"
      :value="tint"
      :min="0"
      :max="90"
      :step="5"
      unit="%"
      @look="() => undefined"
      @keep="set"
    />
    <button v-if="some && chosen.lines.value.some((l) => l.tint !== undefined)" class="quiet h-6" @click="asAll">
      As all lines
    </button>
  </div>
</template>
