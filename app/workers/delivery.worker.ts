import { expose, transfer } from 'comlink'
import type { Box } from '#core/geometry/bounds'
import { shapeSettingsOf } from '#core/model/fineness'
import { sheetSvg } from '#core/formats/pdf/sheet-svg'
import { sheetsOf } from '#core/formats/pdf/sheets'
import type { Drawing, PenTrace, Shape, TraceSample } from '#core/model/model'
import type { DeliveredFile, PictureOrder } from '#core/formats/delivery/deliver'
import { deliverable, outlinesOf, tracesOf } from '#core/formats/delivery/deliver'
import type { DeliveryPart } from '#core/formats/delivery/part'
import { partOf } from '#core/formats/delivery/part'
import { pictureSize } from '#core/formats/delivery/picture-size'
import type { DeliverySettings } from '#core/formats/delivery/settings'
import { writeSvg } from '#core/formats/svg/write-svg'
import { shapesOf } from '#core/ink/shapes-of'
import { drawPicture } from './draw-picture'

/** What is to leave. */
export interface DeliveryOrder {
  /** Where the drawing comes from, as `HandedOver`. */
  from: MessagePort
  part: DeliveryPart
  settings: DeliverySettings
  samples: Readonly<Record<string, readonly TraceSample[]>>
  /** Which page of a PDF is looked at. */
  sheet: number
}

/** A drawing as it is handed over for delivery. */
export interface HandedOver {
  drawing: Drawing
  /** Shapes of the whole drawing, where they are known. */
  shapes: readonly Shape[] | null
}

/** What a file will look like, and how large it will be. */
export interface Preview {
  /** The file itself where it is a picture that can be shown, else its shapes as SVG; null where these are what the canvas shows, and too many to be drawn twice. */
  picture: { mediaType: string; bytes: Uint8Array } | null
  /** Where that lies, px of the page. */
  box: Box
  /** Names of the pages of a PDF. */
  sheets: string[]
  /** Nodes of the shapes; null where the file holds none. */
  nodes: number | null
  /** Bytes; null where it is only known once the file is made. */
  size: number | null
}

/** Pictures above this many dots are not made only to be looked at. */
const LARGEST_SHOWN = 12e6

const isLarge = (drawing: Drawing, { kind, picture }: DeliverySettings): boolean => {
  const { width, height } = pictureSize(drawing.page, picture)
  return (kind === 'picture' || kind === 'all') && width * height > LARGEST_SHOWN
}

/** What comes from the other end of a port. */
const handedOver = (from: MessagePort): Promise<HandedOver> =>
  new Promise((resolve) => {
    from.onmessage = (e: MessageEvent<HandedOver>) => {
      resolve(e.data)
      from.close()
    }
  })

async function prepared({ from, part }: DeliveryOrder): Promise<{ drawing: Drawing; shapes: readonly Shape[] }> {
  const { drawing: whole, shapes } = await handedOver(from)
  const drawing = partOf(whole, part)
  return { drawing, shapes: (part.what === 'page' ? shapes : null) ?? shapesOf(drawing).shapes }
}

function made(
  order: DeliveryOrder,
  { drawing, shapes }: Awaited<ReturnType<typeof prepared>>,
  progress: (share: number) => void,
): Promise<DeliveredFile> {
  return deliverable(drawing, shapes, order.settings, {
    picture: (of: PictureOrder) => drawPicture(of, progress),
    samplesOf: (hash) => order.samples[hash],
  })
}

/** Shapes of more nodes than this are not shown as an SVG over the canvas, which shows the very same: the browser would draw it in one go, in the way of the hand. */
const MOST_NODES_SHOWN = 12_000

const countNodes = (shapes: readonly Shape[]): number =>
  shapes.reduce((n, s) => n + s.contours.reduce((k, c) => k + c.nodes.length, 0), 0)

/** Pen traces as thin lines, as a viewer of such files shows them. */
function tracesSvg({ page }: Drawing, traces: readonly PenTrace[]): string {
  const paths = traces.map(
    (t) =>
      `<polyline points="${t.samples.map((s) => `${s.x},${s.y}`).join(' ')}" fill="none" stroke="#211c1a" stroke-width="1.5"/>`,
  )
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${page.width}" height="${page.height}" viewBox="0 0 ${page.width} ${page.height}">${paths.join('')}</svg>`
}

const text = (svg: string): NonNullable<Preview['picture']> => ({
  mediaType: 'image/svg+xml',
  bytes: new TextEncoder().encode(svg),
})

/** Makes files of drawings away from the hand. */
const maker = {
  /** A drawing on its page as it would leave, as an SVG. */
  picture: (drawing: Drawing): string => writeSvg(drawing, { content: 'outlines', shapes: shapesOf(drawing).shapes }),

  async make(order: DeliveryOrder, progress: (share: number) => void): Promise<DeliveredFile> {
    const file = await made(order, await prepared(order), progress)
    return transfer(file, [file.bytes.buffer as ArrayBuffer])
  },

  async preview(order: DeliveryOrder, progress: (share: number) => void): Promise<Preview> {
    const parts = await prepared(order)
    const { drawing, shapes } = parts
    const { kind } = order.settings
    const box: Box = { minX: 0, minY: 0, maxX: drawing.page.width, maxY: drawing.page.height }
    const outlined = outlinesOf(drawing, shapes, order.settings)
    const traces = kind === 'traces' ? tracesOf(drawing, (h) => order.samples[h]) : []
    const nodes = kind === 'lines' || kind === 'traces' ? null : countNodes(outlined.shapes)
    const plain = {
      picture: text(kind === 'traces' ? tracesSvg(drawing, traces) : outlined.svg),
      box,
      sheets: [],
      nodes,
      size: null,
    }
    if ((kind === 'traces' && !traces.length) || isLarge(drawing, order.settings)) return plain
    const file = await made(order, parts, progress)
    const size = file.bytes.length
    if (kind === 'pdf') {
      const sheets = sheetsOf(drawing, {
        shapes: outlined.shapes,
        separate: order.settings.pdf.separate,
        tolerance: shapeSettingsOf(drawing).tolerance,
      })
      const sheet = sheets[order.sheet] ?? sheets[0]
      if (!sheet) return { ...plain, size }
      const { svg, box: about } = sheetSvg(drawing, sheet, order.settings.pdf)
      return {
        picture: text(svg),
        box: about,
        sheets: order.settings.pdf.separate ? sheets.map((s) => s.name) : [],
        nodes: countNodes(sheet.shapes),
        size,
      }
    }
    if (
      kind === 'outlines' &&
      nodes !== null &&
      nodes > MOST_NODES_SHOWN &&
      order.part.what === 'page' &&
      order.settings.leaving === 'stacked' &&
      order.settings.ground === null
    )
      return { ...plain, picture: null, size }
    return {
      ...plain,
      picture: /^image\//.test(file.mediaType) ? { mediaType: file.mediaType, bytes: file.bytes } : plain.picture,
      size,
    }
  },
}

export type DeliveryWorker = typeof maker

expose(maker)
