<script setup lang="ts">
import { STARTER_INKS } from '#core/editing/starter-inks'
import { useStarterInks } from '~/workspace/use-starter-inks'

/** A few inks to begin with, in one press. */
const starter = useStarterInks()
</script>

<template>
  <button
    v-if="starter.offered.value"
    class="button-strong flex shrink-0 items-center whitespace-nowrap gap-2.5 !py-1"
    data-testid="starter-inks"
    title="Six inks come to this drawing, in one step that undo takes back"
    @click="starter.take()"
  >
    <span class="flex" aria-hidden="true"
      ><span
        v-for="i in STARTER_INKS"
        :key="i.colour"
        class="h-4 w-4 first:rounded-l-[4px] last:rounded-r-[4px]"
        :style="{ background: i.colour }"
    /></span>
    Take starter inks
  </button>
</template>
