<script setup lang="ts">
import WipeHandle from '~/components/ui/WipeHandle.vue'
import { useViewStore } from '~/stores/view'

/** The wipe between the pencil, on the left, and the ink, on the right. */
const view = useViewStore()
const stop = (): void => void (view.pencilWipe = null)
</script>

<template>
  <div v-if="view.wipedAt !== null && view.pencilWipe !== null" class="pointer-events-none absolute inset-0">
    <WipeHandle v-model="view.pencilWipe" label="Wipe between the pencil and the ink" @stop="stop" />
    <div
      class="pointer-events-auto absolute top-3 left-1/2 flex -translate-x-1/2 items-center gap-3 rounded-xl border border-hair bg-raise px-3 py-1.5 shadow-lg"
      @pointerdown.stop
    >
      <span class="quiet">Pencil | Ink</span>
      <button class="button !py-0.5" @click="stop">Done</button>
    </div>
  </div>
</template>
