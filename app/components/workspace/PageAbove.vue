<script setup lang="ts">
import CompareOverlay from './CompareOverlay.vue'
import LookOverlay from './LookOverlay.vue'
import PencilOverlay from './PencilOverlay.vue'
import DeliverPreview from '~/components/deliver/DeliverPreview.vue'
import { useCompareStore } from '~/stores/compare'
import { useViewStore } from '~/stores/view'

/** What lies above the ink: what will leave, other moments of the drawing, the pencil. */
const compare = useCompareStore()
const view = useViewStore()
</script>

<template>
  <DeliverPreview v-if="view.pass === 'deliver'" />
  <CompareOverlay v-if="compare.shown" />
  <PencilOverlay v-else />
  <LookOverlay />
</template>
