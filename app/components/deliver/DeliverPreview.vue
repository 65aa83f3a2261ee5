<script setup lang="ts">
import { computed } from 'vue'
import { matrixOf } from '~/canvas/viewport'
import { useDeliveryStore } from '~/stores/delivery'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

/** What will leave, in its place on the page: the file itself where it is a picture. Clear ground shows as a pattern. */
const delivery = useDeliveryStore()
const store = useDrawingStore()
const view = useViewStore()

const style = computed(() => {
  const { minX, minY, maxX, maxY } = delivery.preview!.box
  const { zoom } = view.viewport
  const [a, b, c, d, e, f] = matrixOf(view.viewport)
  const corner = [a * minX + c * minY + e, b * minX + d * minY + f]
  return { width: `${(maxX - minX) * zoom}px`, height: `${(maxY - minY) * zoom}px`, transform: `matrix(${[a / zoom, b / zoom, c / zoom, d / zoom, ...corner].join()})` }
})
const isClear = computed(() => delivery.settings.ground === null && delivery.settings.kind !== 'pdf')
</script>

<template>
  <div v-if="delivery.preview?.drawing === store.drawing" class="pointer-events-none absolute inset-0 overflow-hidden bg-desk" data-testid="delivery-preview" :data-kind="delivery.settings.kind">
    <img :src="delivery.preview!.url" :style="style" class="page absolute left-0 top-0 max-w-none origin-top-left" :class="isClear ? 'clear-ground' : 'bg-white'" alt="What will leave" />
  </div>
</template>

<style scoped>
.clear-ground {
  background: repeating-conic-gradient(#fffdf8 0 25%, #f6f2ea 0 50%) 0 0 / 24px 24px;
}
</style>
