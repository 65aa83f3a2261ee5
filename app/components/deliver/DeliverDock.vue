<script setup lang="ts">
import { shownItems } from '#core/model/queries'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { DeliveryKind } from '#core/formats/delivery/settings'
import { short } from '#core/geometry/path'
import NamedSettings from './NamedSettings.vue'
import PdfOptions from './PdfOptions.vue'
import PictureOptions from './PictureOptions.vue'
import SvgOptions from './SvgOptions.vue'
import { useDeliveryStore } from '~/stores/delivery'
import { useDrawingStore } from '~/stores/drawing'
import { useGuideStore } from '~/stores/guide'
import { useViewStore } from '~/stores/view'
import { inBytes } from '~/workspace/in-bytes'
import { useInk } from '~/workspace/use-ink'

const store = useDrawingStore()
const ink = useInk()
const view = useViewStore()
const delivery = useDeliveryStore()
const guide = useGuideStore()
const done = ref('')

const KINDS: readonly { id: DeliveryKind; title: string; file: string; what: string }[] = [
  {
    id: 'outlines',
    title: 'Outlines',
    file: 'SVG',
    what: 'Closed shapes without strokes, sharp at every size. For colour, print and cutting.',
  },
  {
    id: 'pdf',
    title: 'Print',
    file: 'PDF',
    what: 'The same shapes on a page of its true size, with bleed, marks and printing inks.',
  },
  {
    id: 'picture',
    title: 'Picture',
    file: 'PNG',
    what: 'Dots, at the fineness that a printer or a screen wants; also black alone, for stamps.',
  },
  {
    id: 'lines',
    title: 'Live lines',
    file: 'SVG',
    what: 'Lines with their weights. Opens again in Bellatrait just as it is now; other viewers show plain strokes.',
  },
  {
    id: 'traces',
    title: 'Pen traces',
    file: 'InkML',
    what: 'What the hand drew: points, time, pressure and tilt of the lines that keep them.',
  },
  { id: 'all', title: 'Everything', file: 'ZIP', what: 'All of these, each as it was set here, in one archive.' },
]

const kind = computed(() => KINDS.find((k) => k.id === delivery.settings.kind) ?? KINDS[0]!)
const layers = computed(() => [...store.drawing!.layers].reverse().filter((l) => l.kind !== 'sketch'))
const page = computed(() => store.drawing!.page)
const facts = computed(() => {
  const { width, height, unit, pxPerMm } = page.value
  return unit === 'mm'
    ? `${short(width / pxPerMm, 1)} x ${short(height / pxPerMm, 1)} mm`
    : `${short(width, 0)} x ${short(height, 0)} px`
})

/** Nothing is drawn that could leave. */
const blank = computed(() => !delivery.leaving?.layers.some((l) => shownItems(l).length))
const noTrace = computed(() => delivery.settings.kind === 'traces' && !delivery.traced.length)
const wholePage = computed(() => delivery.part.what === 'page')
/** Shapes of the whole page are those that are seen already. */
const waiting = computed(() => wholePage.value && (!ink.upToDate.value || ink.progress.value !== null))

/** Settings may be set one after the other: what they make is shown when the hand rests, ms. */
const REST = 160
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  [() => store.drawing, () => JSON.stringify(delivery.settings), () => delivery.part, () => delivery.sheet, waiting],
  () => {
    clearTimeout(timer)
    done.value = ''
    delivery.outdate()
    if (!waiting.value && !blank.value) timer = setTimeout(() => void delivery.show(ink.session.handOver), REST)
    if (blank.value) delivery.clear()
  },
  { immediate: true },
)
onBeforeUnmount(() => {
  clearTimeout(timer)
  delivery.clear()
})

async function deliver(): Promise<void> {
  done.value = ''
  const file = await delivery.make(ink.session.handOver)
  if (!file) return
  done.value = `${file.name}, ${inBytes(file.size)}`
  guide.delivered()
}
</script>

<template>
  <div
    class="grid h-full min-w-0 flex-1 grid-cols-[minmax(0,330px)_minmax(0,1fr)_250px] gap-5 px-4 py-2.5 max-lg:grid-cols-[minmax(0,248px)_minmax(0,1fr)_232px] max-lg:gap-4 max-lg:py-0 max-md:grid-cols-[232px_minmax(0,248px)_minmax(0,1fr)] max-sm:h-auto max-sm:grid-cols-1 max-sm:content-start"
  >
    <div
      class="grid grid-cols-3 grid-rows-2 gap-1.5 max-sm:grid-rows-[52px_52px]"
      role="radiogroup"
      aria-label="What to deliver"
    >
      <button
        v-for="k in KINDS"
        :key="k.id"
        class="flex flex-col items-start justify-center rounded-[10px] border px-2.5 text-left max-lg:px-2"
        :class="k.id === kind.id ? 'border-plum bg-blush' : 'border-hair bg-raise hover:border-mute'"
        role="radio"
        :aria-checked="k.id === kind.id"
        :title="k.what"
        @click="delivery.settings.kind = k.id"
      >
        <b class="font-[650]">{{ k.title }}</b>
        <span class="number text-mute-deep">{{ k.file }}</span>
      </button>
    </div>
    <div class="flex min-h-0 min-w-0 flex-col gap-2 overflow-x-hidden overflow-y-auto">
      <p class="line-clamp-2 text-mute-deep">{{ kind.what }}</p>
      <p v-if="noTrace">No line that leaves keeps a trace. Draw one with Freehand first.</p>
      <p v-else-if="kind.id === 'traces'">
        <span class="number">{{ delivery.traced.length }}</span> lines were drawn by hand and keep their trace.
      </p>
      <SvgOptions v-else-if="kind.id === 'outlines'" />
      <PictureOptions v-else-if="kind.id === 'picture'" />
      <PdfOptions v-else-if="kind.id === 'pdf'" />
    </div>
    <div class="flex min-w-0 flex-col gap-1.5 max-md:order-first">
      <NamedSettings />
      <label class="flex items-center gap-2">
        <span class="w-[54px] shrink-0">Leaves</span>
        <select v-model="delivery.what" class="field min-w-0 flex-1" aria-label="What leaves" data-testid="leaves">
          <option value="page">The whole page</option>
          <option v-if="delivery.chosen.length" value="chosen">What is chosen ({{ delivery.chosen.length }})</option>
          <option v-for="l in layers" :key="l.id" :value="l.id">Layer {{ l.name }}</option>
        </select>
      </label>
      <p class="quiet text-[12px]" data-testid="delivery-facts">
        <span class="number">{{ facts }}</span>
        <button
          class="ml-1.5 underline decoration-dotted hover:text-ink"
          title="Set the page in the Sketch pass"
          @click="view.pass = 'sketch'"
        >
          change
        </button>
        <template v-if="delivery.preview && delivery.told && !waiting && !blank">
          <template v-if="delivery.preview.nodes !== null">
            · <span class="number">{{ delivery.preview.nodes }}</span> nodes</template
          >
          <template v-if="delivery.preview.size !== null">
            · <span class="number">{{ inBytes(delivery.preview.size) }}</span></template
          >
        </template>
      </p>
      <p v-if="blank" class="text-[13px]">
        There is no ink to deliver yet. Lay a line in
        <button class="underline decoration-dotted" @click="view.pass = 'lines'">Lines</button>, or show a layer that is
        hidden.
      </p>
      <div v-else class="mt-auto flex min-w-0 items-center gap-2.5">
        <button
          class="button-strong shrink-0"
          :disabled="delivery.making || waiting || noTrace"
          data-testid="deliver"
          @click="deliver"
        >
          {{
            waiting
              ? 'Making shapes …'
              : delivery.making
                ? `Making … ${Math.round((delivery.progress ?? 0) * 100)} %`
                : `Download ${kind.file}`
          }}
        </button>
        <button v-if="delivery.making" class="button" @click="delivery.stop()">Stop</button>
        <span v-if="done" class="min-w-0 truncate text-[12px] text-moss" role="status" :title="done"
          >Delivered {{ done }}</span
        >
      </div>
    </div>
  </div>
</template>
