<script setup lang="ts">
import { computed, ref } from 'vue'
import { writeInkml } from '#core/formats/inkml/write-inkml'
import { short } from '#core/geometry/path'
import PdfOptions from './PdfOptions.vue'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'
import { useTracesStore } from '~/stores/traces'
import { useViewStore } from '~/stores/view'
import { download } from '~/workspace/download'
import { useInk } from '~/workspace/use-ink'

const store = useDrawingStore()
const studio = useStudioStore()
const ink = useInk()
const traces = useTracesStore()
const view = useViewStore()
const busy = ref(false)
const done = ref('')

/** Largest side of a picture, px: browsers make no larger ones. */
const LARGEST_SIDE = 16_000

const KINDS = [
  { id: 'outlines', title: 'Outlines', file: 'SVG', what: 'Closed shapes without strokes, sharp at every size. For colour, print and cutting.' },
  { id: 'pdf', title: 'Print', file: 'PDF', what: 'The same shapes on a page of its true size, with bleed, marks and printing inks.' },
  { id: 'lines', title: 'Live lines', file: 'SVG', what: 'Lines with their weights. Opens again in Bellatrait just as it is now; other viewers show plain strokes.' },
  { id: 'picture', title: 'Picture', file: 'PNG', what: 'Dots on clear ground, for a quick look or a message.' },
  { id: 'traces', title: 'Pen traces', file: 'InkML', what: 'What the hand drew: points, time, pressure and tilt of the lines that keep them.' },
] as const

const LEAVING = [
  { id: 'stacked', title: 'Stacked', what: 'as they lie on each other' },
  { id: 'cut-out', title: 'Cut out', what: 'each less what lies above it; nothing overlaps' },
  { id: 'one', title: 'One ink', what: 'light cut out of dark: one shape for stamps and cutting' },
] as const

/** What shows the shapes. */
const NEED_SHAPES: string[] = ['outlines', 'pdf', 'picture']

/** Nothing is drawn that could leave. */
const blank = computed(() => !store.drawing!.layers.some((l) => l.visible && l.kind !== 'sketch' && l.items.length))
const traced = computed(() => store.lines.filter((l) => l.trace))

const kind = computed(() => KINDS.find((k) => k.id === studio.preferences.delivery)!)
const page = computed(() => store.drawing!.page)
const scale = computed(() => Math.min(studio.preferences.pictureScale, LARGEST_SIDE / Math.max(page.value.width, page.value.height)))
const pixels = computed(() => `${Math.round(page.value.width * scale.value)} x ${Math.round(page.value.height * scale.value)}`)
const facts = computed(() => {
  const { width, height, unit, pxPerMm } = page.value
  return unit === 'mm' ? `${short(width / pxPerMm, 1)} x ${short(height / pxPerMm, 1)} mm` : `${short(width, 0)} x ${short(height, 0)} px`
})
/** Outlines and pictures show the shapes, so they wait for them. */
const waiting = computed(() => NEED_SHAPES.includes(kind.value.id) && (!ink.upToDate.value || ink.progress.value !== null))

function fileName(extension: string): string {
  const plain = store.drawing!.name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-+|-+$/g, '').toLowerCase()
  return `${plain || 'drawing'}.${extension}`
}

async function make(): Promise<{ blob: Blob; name: string }> {
  const drawing = store.drawing!
  if (studio.preferences.delivery === 'picture') {
    return { blob: await ink.raster.picture(page.value.width, page.value.height, scale.value, null), name: fileName('png') }
  }
  if (studio.preferences.delivery === 'traces') {
    await traces.ready(traced.value)
    return { blob: new Blob([writeInkml(traced.value.flatMap((l) => traces.wholeOf(l) ?? []))], { type: 'application/inkml+xml' }), name: fileName('inkml') }
  }
  if (studio.preferences.delivery === 'pdf') {
    return { blob: new Blob([(await ink.geometry.remote.pdf(drawing, ink.shapes.value!.shapes, { ...studio.preferences.pdf })) as Uint8Array<ArrayBuffer>], { type: 'application/pdf' }), name: fileName('pdf') }
  }
  const live = studio.preferences.delivery === 'lines'
  if (live) await traces.ready(traced.value)
  const text = live ? await ink.geometry.remote.svg(traces.withSamples(drawing)) : await ink.geometry.remote.outlinesSvg(drawing, ink.shapes.value!.shapes, studio.preferences.leaving)
  return { blob: new Blob([text], { type: 'image/svg+xml' }), name: live ? fileName('live.svg') : fileName('svg') }
}

async function deliver(): Promise<void> {
  busy.value = true
  done.value = ''
  try {
    const { blob, name } = await make()
    download(blob, name)
    done.value = `${name}, ${Math.max(1, Math.round(blob.size / 1024))} kB`
  } catch (e) {
    store.notice = `The file could not be made: ${(e as Error).message}`
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="flex h-full min-w-0 flex-1 gap-6 px-4 py-3">
    <div class="flex shrink-0 gap-2" role="radiogroup" aria-label="What to deliver">
      <button
        v-for="k in KINDS"
        :key="k.id"
        class="flex w-[92px] flex-col items-start rounded-[10px] border p-2.5 text-left xl:w-[146px]"
        :class="k.id === kind.id ? 'border-plum bg-blush' : 'border-hair bg-raise hover:border-mute'"
        role="radio"
        :aria-checked="k.id === kind.id"
        :title="k.what"
        @click="((studio.preferences.delivery = k.id), (done = ''))"
      >
        <b class="font-[650]">{{ k.title }}</b>
        <span class="number text-mute-deep">{{ k.file }}</span>
        <span class="mt-1.5 hidden text-[12px] leading-[1.35] text-mute-deep xl:block">{{ k.what }}</span>
      </button>
    </div>
    <div class="flex min-w-0 max-w-[560px] flex-1 flex-col">
      <b class="flex h-6 items-center font-[650]">{{ store.drawing?.name }}</b>
      <p class="quiet mt-1">
        Page <span class="number">{{ facts }}</span> <button class="underline decoration-dotted hover:text-ink" title="Set the page in the Sketch pass" @click="view.pass = 'sketch'">change</button>
        <template v-if="kind.id === 'outlines' && ink.shapes.value"> · <span class="number">{{ ink.shapes.value.nodesAfter }}</span> nodes</template>
      </p>
      <p v-if="kind.id === 'traces'" class="mt-2">
        <template v-if="traced.length"><span class="number">{{ traced.length }}</span> of <span class="number">{{ store.lines.length }}</span> lines were drawn by hand and keep their trace.</template>
        <template v-else>No line of this drawing keeps a trace. Draw one with Freehand first.</template>
      </p>
      <label v-if="kind.id === 'outlines'" class="mt-1.5 flex items-center gap-2.5">
        Shapes
        <select v-model="studio.preferences.leaving" class="field min-w-0" data-testid="leaving">
          <option v-for="l in LEAVING" :key="l.id" :value="l.id">{{ l.title }}: {{ l.what }}</option>
        </select>
      </label>
      <label v-if="kind.id === 'picture'" class="mt-2 flex items-center gap-2.5">
        Scale
        <select v-model.number="studio.preferences.pictureScale" class="field">
          <option v-for="s in [1, 2, 4, 8]" :key="s" :value="s">{{ s }} x</option>
        </select>
        <span class="quiet number">{{ pixels }} px</span>
      </label>
      <PdfOptions v-if="kind.id === 'pdf'" />
      <p v-if="blank" class="mt-2">There is no ink to deliver yet. Lay a line in <button class="underline decoration-dotted" @click="view.pass = 'lines'">Lines</button>, or show a layer that is hidden.</p>
      <div v-else class="mt-auto flex items-center gap-4">
        <button class="button-strong" :disabled="busy || waiting || (kind.id === 'traces' && !traced.length)" data-testid="deliver" @click="deliver">{{ waiting ? 'Making shapes …' : busy ? 'Making the file …' : `Download ${kind.file}` }}</button>
        <span v-if="done" class="text-moss" role="status">Delivered {{ done }}</span>
      </div>
    </div>
  </div>
</template>
