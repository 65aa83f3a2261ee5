<script setup lang="ts">
import WorkBadge from '~/components/ui/WorkBadge.vue'
import { useViewStore } from '~/stores/view'
import { useInk } from '~/workspace/use-ink'
import GuideTip from './GuideTip.vue'

/** What is said at the top of the canvas, one below the other, so that nothing covers another: the guide, and word of long work. */
const view = useViewStore()
const ink = useInk()
</script>

<template>
  <div class="pointer-events-none absolute inset-x-2 top-2 z-10 flex flex-col gap-2">
    <GuideTip />
    <WorkBadge v-if="view.work" :what="view.work.what" :share="view.work.share" stoppable @stop="view.work.stop()" />
    <WorkBadge
      v-else-if="ink.progress.value !== null"
      :what="view.showsShapes ? 'Making shapes' : 'Inking'"
      :share="ink.progress.value"
      :stoppable="view.showsShapes"
      @stop="ink.stopShapes()"
    />
  </div>
</template>
