<script setup lang="ts">
import { useLongPress } from '~/workspace/use-long-press'

/** What a finger or a pen rests on, in words. */
const told = useLongPress()
</script>

<template>
  <p
    v-if="told"
    class="pointer-events-none fixed z-50 max-w-[250px] -translate-x-1/2 rounded-lg bg-ink px-3 py-2 text-[12.5px] text-white shadow-xl"
    :class="told.below ? '' : '-translate-y-full'"
    :style="{ left: `${told.x}px`, top: `${told.y}px` }"
    role="tooltip"
    data-testid="long-press"
  >
    {{ told.words }}
  </p>
</template>
