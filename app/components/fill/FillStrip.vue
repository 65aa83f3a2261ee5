<script setup lang="ts">
import { computed } from 'vue'
import { useViewStore } from '~/stores/view'
import { stripOf } from '~/components/strip-of'
import { instrumentOf } from '~/catalogue/instruments'
import InkPalette from './InkPalette.vue'
import PourSection from './PourSection.vue'

/** The palette, and beside it what the instrument in hand has to set. */
const view = useViewStore()
const tool = computed(() => instrumentOf(view.instrument))
const own = computed(() => (tool.value?.passes.length === 1 && stripOf(tool.value)) || PourSection)
</script>

<template>
  <div class="flex h-full gap-8">
    <InkPalette class="w-[408px] shrink-0" />
    <div class="min-h-0 min-w-0 flex-1 overflow-y-auto"><component :is="own" /></div>
  </div>
</template>
