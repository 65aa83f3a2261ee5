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
  /** Regions of what lies before it, as far as its outline does not know them yet: nothing of it shows there. */
  behind: readonly InkPart[]
  /** Entries of one layer are dimmed together; 0 leaves them out but where all is drawn. */
  layer: string
  opacity: number
  /** The version of a shape, and the one before it, from which it differs only within these boxes. */
  version?: { now: number; before: number; changed: readonly Box[] | null }
}

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

export interface PaintOptions {
  /** What of the page is drawn, page px. */
  box: Box
  /** Everything at full strength, layers that are left out too. */
  full?: boolean
  /** Ids of entries that somebody else draws. */
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
    if (!entry.parts.length || leftOut?.has(entry.id)) continue
    const dimmed = !full && entry.opacity < 1
    if (sheet && (!dimmed || (sheet as { layer: string }).layer !== entry.layer)) laySheet()
    if (!full && entry.opacity === 0) continue
    if (dimmed && !sheet) sheet = { layer: entry.layer, opacity: entry.opacity, ctx: sheetLike(ctx) }
    const on: Context = (sheet as { ctx: Context } | null)?.ctx ?? ctx
    if (entry.behind.length) on.save()
    for (const hole of entry.behind) on.clip(allBut(hole, box), 'evenodd')
    on.fillStyle = entry.colour
    on.fill(pathWithin(entry.parts, box), 'nonzero')
    if (entry.behind.length) on.restore()
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

/** All that is drawn but for a hole in it. */
function allBut(hole: InkPart, { minX, minY, maxX, maxY }: Box): Path2D {
  const path = new Path2D()
  path.rect(minX - 1, minY - 1, maxX - minX + 2, maxY - minY + 2)
  path.addPath(pathOf(hole))
  return path
}
