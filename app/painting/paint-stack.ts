import type { Box } from '#core/geometry/bounds'
import { overlap } from '#core/geometry/bounds'
import type { Vec } from '#core/geometry/point'
import { remembered } from '#core/remembered'

/** Path data of some of an outline's contours, and their bounds, page px. */
export interface InkPart {
  data: string
  box: Box
  /** By how much the path of another part, with the same data, is moved to be this one, page px. */
  shift?: { of: InkPart; by: Vec }
}

/** Something of one ink in the stack, ready for drawing. */
export interface InkEntry {
  id: string
  colour: string
  /** Its outline; none for what has no ink. */
  parts: readonly InkPart[]
  box: Box
  /** A region in which it hides what lies behind it. */
  cover: InkPart | null
  /** Entries of one layer are dimmed together; 0 leaves them out but where all is drawn. */
  layer: string
  opacity: number
  /** The version of a shape, and the one before it, from which it differs only within these boxes. */
  version?: { now: number; before: number; changed: readonly Box[] | null }
}

/** An entry that only hides what lies behind it: somebody else draws its ink. */
export const coverOf = (entry: InkEntry): InkEntry => ({ ...entry, parts: [] })

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
export function paintStack(
  ctx: Context,
  stack: readonly InkEntry[],
  { box, full = false, leftOut }: PaintOptions,
): void {
  let sheet: { layer: string; opacity: number; ctx: Context } | null = null
  const laySheet = (): void => {
    if (sheet) overlay(ctx, sheet.ctx.canvas, sheet.opacity)
    sheet = null
  }
  for (const entry of stack) {
    if (!overlap(entry.box, box)) continue
    const drawn = entry.parts.length > 0 && !leftOut?.has(entry.id)
    if (!drawn && !entry.cover) continue
    const dimmed = !full && entry.opacity < 1
    if (sheet && (!dimmed || (sheet as { layer: string }).layer !== entry.layer)) laySheet()
    if (!full && entry.opacity === 0) continue
    if (dimmed && !sheet) sheet = { layer: entry.layer, opacity: entry.opacity, ctx: sheetLike(ctx) }
    const on: Context = (sheet as { ctx: Context } | null)?.ctx ?? ctx
    if (entry.cover) for (const under of new Set([ctx, on])) erase(under, pathOf(entry.cover))
    if (!drawn) continue
    on.fillStyle = entry.colour
    on.fill(pathWithin(entry.parts, box), 'nonzero')
  }
  laySheet()
}

/** A part as the canvas takes it, read from its path data once. */
const pathOf = remembered((part: InkPart): Path2D =>
  part.shift ? shifted(pathOf(part.shift.of), part.shift.by) : new Path2D(part.data),
)

function shifted(path: Path2D, d: Vec): Path2D {
  const moved = new Path2D()
  moved.addPath(path, new DOMMatrix([1, 0, 0, 1, d.x, d.y]))
  return moved
}

/** Those parts that reach into a box: no other can ink anything there. */
function pathWithin(parts: readonly InkPart[], box: Box): Path2D {
  if (parts.length === 1) return pathOf(parts[0]!)
  const path = new Path2D()
  for (const part of parts) if (overlap(part.box, box)) path.addPath(pathOf(part))
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
