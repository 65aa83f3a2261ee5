<script setup lang="ts">
import { computed } from 'vue'
import { isLockedOut } from '~/network/api'
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
      return 'Saved'
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
    >{{ words
    }}<span v-if="store.saveState === 'saved' && store.savedAt" class="ml-1 max-md:hidden">
      {{ time.format(store.savedAt) }}</span
    ><a
      v-if="isLockedOut"
      href="/enter"
      target="_blank"
      class="ml-2 underline"
      title="The server asks for its passphrase. What you drew is kept here and saved once it is named."
      >Enter the passphrase</a
    ></span
  >
</template>
