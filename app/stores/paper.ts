import { wrap } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Sketch } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { changeSketchAndPage } from '#core/editing/page-of-sketch'
import { fromShares, toShares, WHOLE, withPaper } from '#core/sketch/sketch-place'
import type { Quad } from '#core/sketch/perspective'
import { isConvex, mapQuad, sizeOfQuad, squareToQuad } from '#core/sketch/perspective'
import { addressOf } from '~/workers/read-picture'
import type { SketchWorker } from '~/workers/sketch.worker'
import { commandForInstrument } from '~/commands/commands'
import { useDrawingStore } from './drawing'
import { useKeysStore } from './keys'
import { sketchLayerInHand } from '#core/model/find'
import { useViewStore } from './view'

/** The corners of the picture itself, as shares of what is seen of it. */
const SQUARE: Quad = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
]

/** Photos of a sheet that were taken at a slant, set right by the corners of the paper: those that are found, or where the hand puts them. */
export const usePaperStore = defineStore('paper', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const looking = ref(false)
  /** Corners that are being set, as shares of what is seen of a sketch. */
  const laid = shallowRef<{ sketch: string; quad: Quad } | null>(null)

  const sketch = computed(
    () => (store.drawing && sketchLayerInHand(store.drawing, view.sketchLayer)?.items.at(-1)) ?? null,
  )
  /** Corners on the page, where some are set or offered and not yet kept. */
  const corners = computed((): Quad | null =>
    sketch.value ? mapQuad(of(sketch.value), (p) => fromShares(sketch.value!, p)) : null,
  )
  const isLaid = computed(() => !!laid.value && laid.value.sketch === sketch.value?.id)

  const of = (s: Sketch): Quad => (laid.value?.sketch === s.id ? laid.value.quad : SQUARE)

  /** Puts a corner to a point of the page. */
  function lay(index: number, to: Vec): void {
    const s = sketch.value
    if (!s) return
    laid.value = { sketch: s.id, quad: mapQuad(of(s), (p, i) => (i === index ? toShares(s, to) : p)) }
  }

  const putAway = (): void => void (laid.value = null)

  /** Looks whether a sketch that came in is a photo of a sheet on something darker, and offers to set it right. */
  async function suggest(): Promise<void> {
    const s = sketch.value
    if (!s || s.corners || looking.value) return
    const found = await look(s.image)
    if (!found || sketch.value !== s || store.notice || laid.value) return
    store.tell(
      'This sketch is a photo of a sheet of paper. Set right, only the sheet is seen, as from straight above.',
      [
        {
          title: 'Set it right',
          run: () => {
            if (sketch.value?.id !== s.id || sketch.value.corners) return
            laid.value = { sketch: s.id, quad: asSeen(sketch.value, found) }
            void keep()
          },
        },
      ],
    )
  }

  /** Looks for the corners of the paper and offers them; tells where none are seen, if the person asked. */
  async function offer(asked: boolean): Promise<void> {
    const s = sketch.value
    if (!s || looking.value) return
    const found = await look(s.image)
    if (!found) {
      if (asked)
        store.notice = `No sheet of paper was found on something darker. Take ${useKeysStore().titled('Corners', commandForInstrument('sketch', 'paper'))} and drag the four marks onto the corners of the sheet.`
      return
    }
    // What is set right already is as it was wanted.
    if (sketch.value?.id === s.id && !s.corners && (asked || !laid.value))
      laid.value = { sketch: s.id, quad: asSeen(s, found) }
  }

  async function look(image: string): Promise<Quad | null> {
    looking.value = true
    const thread = new Worker(new URL('../workers/sketch.worker.ts', import.meta.url), { type: 'module' })
    try {
      const found = await wrap<SketchWorker>(thread).paper(image)
      if (found && 'problem' in found) store.notice = found.problem
      return found && !('problem' in found) ? found : null
    } finally {
      thread.terminate()
      looking.value = false
    }
  }

  /** Finds the paper and sets it right, in one go. */
  async function setPaperRight(): Promise<void> {
    await offer(true)
    if (isLaid.value) await keep()
  }

  /** Sets the photo right by the corners as they are laid. */
  async function keep(): Promise<void> {
    const s = sketch.value
    if (!s || !isLaid.value) return
    const { width, height } = await sizeOf(s.image)
    if (sketch.value !== s || !isLaid.value) return
    const quad = inPicture(s, laid.value!.quad)
    const px = mapQuad(quad, ({ x, y }) => ({ x: x * width, y: y * height }))
    if (!isConvex(px) || quad.some(({ x, y }) => !(x >= -1 && x <= 2 && y >= -1 && y <= 2))) {
      store.notice =
        'These corners do not go round a sheet. Put each mark on one corner of the sheet, none across another.'
      return
    }
    const size = sizeOfQuad(px)
    const corners: Sketch['corners'] = [...quad]
    change(s.id, 'Set the paper right', (now) => withPaper(now, corners, size.height / size.width))
    putAway()
  }

  async function asTaken(): Promise<void> {
    const s = sketch.value
    if (!s) return
    putAway()
    const { width, height } = await sizeOf(s.image)
    change(s.id, 'The photo as it was taken', (now) => withPaper(now, null, height / width))
  }

  const change = (id: string, label: string, to: (sketch: Sketch) => Sketch): void =>
    store.edit(label, (draft) => changeSketchAndPage(draft, id, to))

  return { sketch, corners, isLaid, looking, lay, putAway, suggest, offer, setPaperRight, keep, asTaken }
})

/** Shares of what is seen of a sketch, as shares of its picture as it was taken. */
function inPicture({ corners, crop, mirrored }: Sketch, quad: Quad): Quad {
  const at = squareToQuad(corners ?? SQUARE)
  const c = crop ?? WHOLE
  const found = mapQuad(quad, (p) => at(c.x + (mirrored ? 1 - p.x : p.x) * c.width, c.y + p.y * c.height))
  return mirrored ? otherWayRound(found) : found
}

/** Shares of a picture that is not set right, as shares of what is seen of it. */
function asSeen({ crop, mirrored }: Sketch, quad: Quad): Quad {
  const c = crop ?? WHOLE
  const found = mapQuad(quad, ({ x, y }) => ({
    x: mirrored ? 1 - (x - c.x) / c.width : (x - c.x) / c.width,
    y: (y - c.y) / c.height,
  }))
  return mirrored ? otherWayRound(found) : found
}

/** Seen from behind, corners go round the other way. */
const otherWayRound = ([a, b, c, d]: Quad): Quad => [b, a, d, c]

/** Px of a picture as it is looked at: its proportions. */
async function sizeOf(image: string): Promise<{ width: number; height: number }> {
  const answer = await fetch(addressOf(image))
  const bitmap = await createImageBitmap(await answer.blob())
  const size = { width: bitmap.width, height: bitmap.height }
  bitmap.close()
  return size
}
