<script setup lang="ts">
import { ref } from 'vue'
import { Minus, Plus } from 'lucide-vue-next'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

/** How near the page is, to be read, set and stepped. */
const view = useViewStore()
const store = useDrawingStore()
const field = ref<HTMLInputElement>()

const STEP = 1.25

function set(e: Event): void {
  const input = e.target as HTMLInputElement
  const percent = Number.parseFloat(input.value.replace(',', '.'))
  if (percent > 0) view.zoomBy(percent / 100 / view.viewport.zoom)
  else store.notice = 'A zoom is a number of percent above 0, so it stayed as it was.'
  input.value = shown()
}

const shown = (): string => `${Math.round(view.viewport.zoom * 100)} %`
</script>

<template>
  <span class="flex items-center" role="group" aria-label="Zoom">
    <button
      class="grid h-6 w-6 place-items-center rounded hover:bg-raise hover:text-ink"
      title="Zoom out ( - )"
      aria-label="Zoom out"
      @click="view.zoomBy(1 / STEP)"
    >
      <Minus :size="13" />
    </button>
    <input
      ref="field"
      class="h-6 touch:min-h-11 w-[52px] rounded bg-transparent text-center hover:bg-raise"
      :value="shown()"
      aria-label="Zoom in percent"
      title="Type a zoom in percent. 0: whole page, 9: final size"
      data-testid="zoom"
      @focus="field?.select()"
      @change="set"
      @keydown.enter="field?.blur()"
    />
    <button
      class="grid h-6 w-6 place-items-center rounded hover:bg-raise hover:text-ink"
      title="Zoom in ( + )"
      aria-label="Zoom in"
      @click="view.zoomBy(STEP)"
    >
      <Plus :size="13" />
    </button>
  </span>
</template>
