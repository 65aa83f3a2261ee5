<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import type { Vec } from '#core/geometry/point'
import { paintStack } from '~/painting/paint-stack'
import { useInk } from '~/workspace/use-ink'

/** What a finding looks like: the ink about a point. */
const props = defineProps<{ at: Vec }>()
const WIDTH = 56
const HEIGHT = 40
/** Screen px a page px. */
const ZOOM = 1.6
const ink = useInk()
const canvas = ref<HTMLCanvasElement>()

function draw(): void {
  const k = window.devicePixelRatio
  const ctx = canvas.value?.getContext('2d')
  if (!ctx) return
  ctx.canvas.width = WIDTH * k
  ctx.canvas.height = HEIGHT * k
  const { x, y } = props.at
  const [w, h] = [WIDTH / 2 / ZOOM, HEIGHT / 2 / ZOOM]
  ctx.setTransform(ZOOM * k, 0, 0, ZOOM * k, (WIDTH / 2 - x * ZOOM) * k, (HEIGHT / 2 - y * ZOOM) * k)
  paintStack(ctx, ink.stack.value, { box: { minX: x - w, minY: y - h, maxX: x + w, maxY: y + h } })
}
onMounted(draw)
watch(() => [props.at, ink.stack.value], draw)
</script>

<template>
  <canvas ref="canvas" class="h-10 w-14 shrink-0 rounded border border-hair bg-paper" aria-hidden="true" />
</template>
