<script setup lang="ts">
/** An upright line that the hand draws over the canvas, between what is seen on its left and on its right. */
const at = defineModel<number>({ required: true })
defineProps<{ label: string }>()
const emit = defineEmits<{ stop: [] }>()
const STEP = 0.02

let dragged: number | null = null

function press(e: PointerEvent): void {
  dragged = e.pointerId
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
}

function move(e: PointerEvent): void {
  if (e.pointerId !== dragged) return
  const box = (e.currentTarget as Element).parentElement!.getBoundingClientRect()
  at.value = Math.min(1, Math.max(0, (e.clientX - box.left) / box.width))
}

function key(e: KeyboardEvent): void {
  const by = { ArrowLeft: -STEP, ArrowRight: STEP, Home: -1, End: 1 }[e.key]
  if (by !== undefined) at.value = Math.min(1, Math.max(0, at.value + by))
  else if (e.key === 'Escape') emit('stop')
  else return
  e.preventDefault()
  e.stopPropagation()
}
</script>

<template>
  <div
    class="pointer-events-auto absolute inset-y-0 -ml-3 w-6 cursor-ew-resize touch-none outline-none"
    :style="{ left: `${at * 100}%` }"
    role="slider"
    tabindex="0"
    :aria-label="label"
    :aria-valuenow="Math.round(at * 100)"
    aria-valuemin="0"
    aria-valuemax="100"
    data-testid="wipe"
    @pointerdown.stop="press"
    @pointermove.stop="move"
    @pointerup.stop="dragged = null"
    @keydown="key"
  >
    <span class="absolute inset-y-0 left-1/2 w-0.5 -translate-x-1/2 bg-plum" />
    <span
      class="absolute top-1/2 left-1/2 grid h-9 w-4 -translate-1/2 place-items-center rounded-full border-2 border-plum bg-paper"
    />
  </div>
</template>
