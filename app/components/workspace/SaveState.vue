<script setup lang="ts">
import { computed } from 'vue'
import { useDrawingStore } from '~/stores/drawing'

const store = useDrawingStore()

const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

const words = computed(() => {
  switch (store.saveState) {
    case 'saving':
      return 'Saving'
    case 'waiting':
      return 'Kept here, not saved yet'
    case 'refused':
      return 'Not saved'
    default:
      return store.savedAt ? `Saved ${time.format(store.savedAt)}` : 'Saved'
  }
})

const tone = computed(
  () =>
    ({ saved: 'text-mute', saving: 'text-mute', waiting: 'text-[#8a4d08]', refused: 'text-brick' })[store.saveState],
)
</script>

<template>
  <span
    class="shrink-0 text-right"
    :class="tone"
    :title="store.saveMessage || undefined"
    role="status"
    data-testid="save-state"
    >{{ words }}</span
  >
</template>
