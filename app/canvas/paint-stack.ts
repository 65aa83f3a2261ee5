import type { Box } from '#core/geometry/bounds'
import { overlap } from '#core/geometry/bounds'

/** Something of one ink in the stack, ready for drawing. */
export interface InkEntry {
  id: string
  colour: string
  /** Path data of its outline; '' for none. */
  data: string
  box: Box
  /** Path data of a region in which it hides what lies behind it; '' for none. */
  cover: string
  /** Entries of one layer are dimmed together; 0 leaves them out but where all is drawn. */
  layer: string
  opacity: number
}

/** An entry that only hides what lies behind it: somebody else draws its ink. */
export const coverOf = (entry: InkEntry): InkEntry => ({ ...entry, data: '' })

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

export interface PaintOptions {
  /** What of the page is drawn, page px. */
  box: Box
  /** Everything at full strength, layers that are left out too. */
  full?: boolean
  /** Ids of entries that somebody else draws; what they cover stays covered. */
  leftOut?: ReadonlySet<string>
}

/**
 * Draws a stack, bottom to top, on a clear surface whose transform leads from the page to it: the one painter of the
 * tiles, the lines under the hand, the wipe, the small view and pictures.
 */
export function paintStack(ctx: Context, stack: readonly InkEntry[], { box, full = false, leftOut }: PaintOptions): void {
  let sheet: { layer: string; opacity: number; ctx: Context } | null = null
  const laySheet = (): void => {
    if (sheet) overlay(ctx, sheet.ctx.canvas, sheet.opacity)
    sheet = null
  }
  for (const entry of stack) {
    if (!overlap(entry.box, box)) continue
    const drawn = !!entry.data && !leftOut?.has(entry.id)
    if (!drawn && !entry.cover) continue
    const dimmed = !full && entry.opacity < 1
    if (sheet && (!dimmed || (sheet as { layer: string }).layer !== entry.layer)) laySheet()
    if (!full && entry.opacity === 0) continue
    if (dimmed && !sheet) sheet = { layer: entry.layer, opacity: entry.opacity, ctx: sheetLike(ctx) }
    const on: Context = (sheet as { ctx: Context } | null)?.ctx ?? ctx
    if (entry.cover) for (const under of new Set([ctx, on])) erase(under, pathOf(entry, 'cover'))
    if (!drawn) continue
    on.fillStyle = entry.colour
    on.fill(pathOf(entry, 'data'), 'nonzero')
  }
  laySheet()
}

const paths = { data: new WeakMap<InkEntry, Path2D>(), cover: new WeakMap<InkEntry, Path2D>() }

/** An entry's region as the canvas takes it, read from its path data once. */
function pathOf(entry: InkEntry, of: 'data' | 'cover'): Path2D {
  let path = paths[of].get(entry)
  if (!path) paths[of].set(entry, (path = new Path2D(entry[of])))
  return path
}

/** A clear sheet of the same size and place, for a layer that is dimmed as a whole. */
function sheetLike(ctx: Context): Context {
  const sheet = new OffscreenCanvas(ctx.canvas.width, ctx.canvas.height).getContext('2d')!
  sheet.setTransform(ctx.getTransform())
  return sheet
}

function overlay(ctx: Context, sheet: CanvasImageSource, opacity: number): void {
  ctx.save()
  ctx.resetTransform()
  ctx.globalAlpha = opacity
  ctx.drawImage(sheet, 0, 0)
  ctx.restore()
}

function erase(ctx: Context, path: Path2D): void {
  ctx.globalCompositeOperation = 'destination-out'
  ctx.fill(path, 'nonzero')
  ctx.globalCompositeOperation = 'source-over'
}
