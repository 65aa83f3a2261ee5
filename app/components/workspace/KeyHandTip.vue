<script setup lang="ts">
import { computed } from 'vue'
import type { Vec } from '#core/geometry/point'
import { useViewStore } from '~/stores/view'

/** What the keys do with the hand that they move, in words beside it; away from the edges that are near. */
const props = defineProps<{ at: Vec; pressed: boolean }>()
const view = useViewStore()

const place = computed(() => {
  const { at } = props
  const right = at.x > view.size.width / 2
  const low = at.y > view.size.height / 2
  return {
    [right ? 'right' : 'left']: `${(right ? view.size.width - at.x : at.x) + 16}px`,
    top: `${at.y + (low ? -40 : 16)}px`,
  }
})
</script>

<template>
  <p
    class="pointer-events-none absolute rounded-md bg-ink px-2 py-1 text-[12px] text-white"
    :style="place"
    data-testid="key-hand"
  >
    {{ pressed ? 'Arrows: drag · let Space go: release' : 'Arrows: move · Space: press · O: next mark · P: put away' }}
  </p>
</template>
