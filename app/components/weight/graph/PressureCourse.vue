<script setup lang="ts">
import { line as lineOf } from 'd3-shape'
import { computed } from 'vue'
import { pressureWidths } from '#core/fit/pressure-widths'
import { useTracesStore } from '~/stores/traces'
import { useGraph } from './use-graph'

/** The widths that the pen's pressure asked for, beside the profile of few stops that stands for them. */
const graph = useGraph()
const traces = useTracesStore()

const points = computed(() => {
  const trace = traces.wholeOf(graph.line.value)
  return (trace && pressureWidths(trace)) ?? []
})

const half = computed(() => graph.line.value.weight.size / 2)
const course = (side: 1 | -1): string =>
  lineOf<{ s: number; w: number }>()
    .x((p) => graph.x(p.s))
    .y((p) => graph.y(side * p.w * half.value))(points.value) ?? ''
</script>

<template>
  <g v-if="points.length" class="pointer-events-none" data-testid="pressure-course">
    <path :d="course(1)" fill="none" class="stroke-moss" stroke-width="1.4" />
    <path :d="course(-1)" fill="none" class="stroke-moss" stroke-width="1.4" />
  </g>
</template>
