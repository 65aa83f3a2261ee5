<script setup lang="ts">
import CompareOverlay from './CompareOverlay.vue'
import LookOverlay from './LookOverlay.vue'
import PencilOverlay from './PencilOverlay.vue'
import DeliverPreview from '~/components/deliver/DeliverPreview.vue'
import WorkBadge from '~/components/ui/WorkBadge.vue'
import { useCompareStore } from '~/stores/compare'
import { useViewStore } from '~/stores/view'
import { useInk } from '~/workspace/use-ink'

/** What lies above the ink: what will leave, other moments of the drawing, the pencil, and word of long work. */
const compare = useCompareStore()
const view = useViewStore()
const ink = useInk()
</script>

<template>
  <DeliverPreview v-if="view.pass === 'deliver'" />
  <CompareOverlay v-if="compare.shown" />
  <PencilOverlay v-else />
  <LookOverlay />
  <WorkBadge v-if="view.work" :what="view.work.what" :share="view.work.share" stoppable @stop="view.work.stop()" />
  <WorkBadge v-else-if="ink.progress.value !== null" :what="view.showsShapes ? 'Making shapes' : 'Inking'" :share="ink.progress.value" :stoppable="view.showsShapes" @stop="ink.stopShapes()" />
</template>
