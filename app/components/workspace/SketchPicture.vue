<script setup lang="ts">
import type { Remote } from 'comlink'
import { wrap } from 'comlink'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { Sketch } from '#core/model/model'
import { useDrawingStore } from '~/stores/drawing'
import { addressOf, sourceOf } from '~/workers/read-picture'
import type { SketchWorker } from '~/workers/sketch.worker'

/** A sketch under the ink: the picture itself, or, where it is made clean or set right, what a worker makes of it. */
const props = defineProps<{ sketch: Sketch }>()
const store = useDrawingStore()
const canvas = ref<HTMLCanvasElement>()
const isMade = computed(
  () => !!(props.sketch.clean || props.sketch.corners || props.sketch.crop || props.sketch.mirrored),
)
let thread: { worker: Worker; remote: Remote<SketchWorker> } | null = null
let newest = 0
let busy = false

/** What is wanted last is made; what came between two is passed over. */
async function make(): Promise<void> {
  const mine = ++newest
  if (busy || !isMade.value) return
  busy = true
  if (!thread) {
    const worker = new Worker(new URL('../../workers/sketch.worker.ts', import.meta.url), { type: 'module' })
    thread = { worker, remote: wrap<SketchWorker>(worker) }
  }
  const { clean } = props.sketch
  const name = JSON.stringify({ ...sourceOf(props.sketch), ...clean })
  const made = await thread.remote
    .prepare(sourceOf(props.sketch), clean ? { ...clean } : null)
    .finally(() => (busy = false))
  if (!thread) return
  if ('problem' in made) store.notice = made.problem
  else if (canvas.value) {
    Object.assign(canvas.value, { width: made.width, height: made.height })
    canvas.value.getContext('bitmaprenderer')!.transferFromImageBitmap(made)
    canvas.value.dataset.made = name
  }
  if (mine !== newest) void make()
}

watch([() => JSON.stringify([props.sketch.clean, sourceOf(props.sketch)]), canvas], () => void make(), {
  immediate: true,
})

onBeforeUnmount(() => {
  thread?.worker.terminate()
  thread = null
})
</script>

<template>
  <canvas v-if="isMade" ref="canvas" data-testid="sketch" />
  <img v-else :src="addressOf(sketch.image)" alt="" draggable="false" data-testid="sketch" />
</template>
