<script setup lang="ts">
import { computed } from 'vue'
import { laidOnPage } from '~/canvas/laid-on-page'
import { useDeliveryStore } from '~/stores/delivery'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

/** What will leave, in its place on the page: the file itself where it is a picture. Clear ground shows as a pattern. */
const delivery = useDeliveryStore()
const store = useDrawingStore()
const view = useViewStore()

const style = computed(() => laidOnPage(view.viewport, delivery.preview!.box))
const isClear = computed(() => delivery.settings.ground === null && delivery.settings.kind !== 'pdf')
</script>

<template>
  <div
    v-if="delivery.preview?.url && delivery.preview.drawing === store.drawing"
    class="pointer-events-none absolute inset-0 overflow-hidden bg-desk"
    data-testid="delivery-preview"
    :data-kind="delivery.settings.kind"
  >
    <img
      :src="delivery.preview.url"
      :style="style"
      class="page absolute left-0 top-0 max-w-none origin-top-left"
      :class="isClear ? 'clear-ground' : 'bg-white'"
      alt="What will leave"
    />
  </div>
</template>

<style scoped>
.clear-ground {
  background: repeating-linear-gradient(60deg, #fffdf8 0 9px, #efe9de 9px 10px);
}
</style>
