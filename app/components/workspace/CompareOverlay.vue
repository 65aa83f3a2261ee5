<script setup lang="ts">
import { seenLines } from '#core/model/queries'
import { withCopies } from '#core/repetition/with-copies'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Drawing } from '#core/model/model'
import { PAPER } from '~/canvas/mark-look'
import { paintStack } from '~/painting/paint-stack'
import { Stacker } from '~/canvas/stacker'
import { TuckedLines } from '~/canvas/tucked-lines'
import { boxInView, matrixOf } from '~/canvas/viewport'
import WipeHandle from '~/components/ui/WipeHandle.vue'
import { useCompareStore } from '~/stores/compare'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { useInk } from '~/workspace/use-ink'

/** Other moments of the drawing laid over it: one of them while a key is held, or two with a wipe between them. */
const store = useDrawingStore()
const compare = useCompareStore()
const view = useViewStore()
const ink = useInk()
const canvas = ref<HTMLCanvasElement>()

/** What was drawn last of each drawing, so that the wipe only moves pictures. */
let kept = new Map<Drawing, { picture: HTMLCanvasElement; view: string }>()
/** What lines show beside others, at each moment. */
const tucked = new WeakMap<Drawing, TuckedLines>()
let round = 0

async function draw(): Promise<void> {
  const shown = compare.shown
  if (!shown || !canvas.value) return
  const mine = ++round
  const both = [shown.left, shown.right].filter((d): d is Drawing => !!d)
  for (const drawing of both) {
    const lines = seenLines(withCopies(drawing))
    await ink.cache.fill(
      lines,
      (l) => l,
      () => mine === round,
      () => undefined,
    )
    if (mine !== round) return
    if (!tucked.has(drawing)) {
      const lines = new TuckedLines()
      lines.take(withCopies(drawing), await ink.session.clippedBeside(store.drawing!, drawing), new Map())
      tucked.set(drawing, lines)
    }
    if (mine !== round) return
  }
  show()
}

function show(): void {
  const shown = compare.shown
  const to = canvas.value
  if (!shown || !to) return
  const k = window.devicePixelRatio
  to.width = Math.round(view.size.width * k)
  to.height = Math.round(view.size.height * k)
  const ctx = to.getContext('2d')!
  const pictures = new Map<Drawing, { picture: HTMLCanvasElement; view: string }>()
  const place = (drawing: Drawing | null, from: number, until: number): void => {
    if (!drawing || until <= from) return
    const known = kept.get(drawing) ?? pictures.get(drawing)
    const key = `${matrixOf(view.viewport, k).join()} ${to.width} ${to.height}`
    const entry = known?.view === key ? known : { picture: pictureOf(drawing, to.width, to.height, k), view: key }
    pictures.set(drawing, entry)
    ctx.drawImage(entry.picture, from, 0, until - from, to.height, from, 0, until - from, to.height)
  }
  const at = Math.round(to.width * shown.at)
  place(shown.left, 0, at)
  place(shown.right, at, to.width)
  kept = pictures
}

/** A drawing on its page, as the view has it. */
function pictureOf(drawing: Drawing, width: number, height: number, k: number): HTMLCanvasElement {
  const picture = document.createElement('canvas')
  picture.width = width
  picture.height = height
  const ctx = picture.getContext('2d')!
  ctx.setTransform(...matrixOf(view.viewport, k))
  ctx.fillStyle = PAPER
  ctx.fillRect(0, 0, drawing.page.width, drawing.page.height)
  const inked = new OffscreenCanvas(width, height)
  const on = inked.getContext('2d')!
  on.setTransform(ctx.getTransform())
  paintStack(
    on,
    new Stacker(ink.cache, (l) => l, tucked.get(drawing) ?? new TuckedLines()).linesOf(withCopies(drawing), () => true),
    { box: boxInView(view.viewport, view.size) },
  )
  ctx.resetTransform()
  ctx.drawImage(inked, 0, 0)
  return picture
}

// Outlines of lines that are slow come after all others.
watch(
  () => [compare.shown?.left, compare.shown?.right, ink.late.value],
  () => ((kept = new Map()), void draw()),
  { flush: 'post' },
)
watch(() => [compare.wipe, view.viewport, view.size], show, { flush: 'post' })
onMounted(() => void draw())
onBeforeUnmount(() => (round = -1))
</script>

<template>
  <div class="pointer-events-none absolute inset-0" data-testid="compare">
    <canvas ref="canvas" class="absolute inset-0 h-full w-full" />
    <p
      v-if="compare.held"
      class="absolute top-3 left-1/2 -translate-x-1/2 rounded-lg bg-ink px-3 py-1.5 text-[13px] text-white"
      role="status"
    >
      {{
        compare.held === 'even'
          ? 'With even weight'
          : compare.unchanged()
            ? 'Nothing has changed since you came to this pass'
            : 'Before this visit'
      }}
    </p>
    <template v-else-if="compare.sides">
      <WipeHandle v-model="compare.wipe" label="Wipe between the two moments" @stop="compare.stop()" />
      <div
        class="pointer-events-auto absolute top-3 left-1/2 flex -translate-x-1/2 items-center gap-2 rounded-xl border border-hair bg-raise px-3 py-2 shadow-lg"
        @pointerdown.stop
      >
        <select
          class="field"
          aria-label="Left of the wipe"
          :value="compare.sides.left"
          @change="compare.between(($event.target as HTMLSelectElement).value, compare.sides!.right)"
        >
          <option v-for="t in compare.titles" :key="t.id" :value="t.id">{{ t.title }}</option>
        </select>
        <span class="quiet">|</span>
        <select
          class="field"
          aria-label="Right of the wipe"
          :value="compare.sides.right"
          @change="compare.between(compare.sides!.left, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="t in compare.titles" :key="t.id" :value="t.id">{{ t.title }}</option>
        </select>
        <button class="button" @click="compare.stop()">Done</button>
      </div>
    </template>
  </div>
</template>
