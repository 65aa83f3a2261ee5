import { expose, transfer } from 'comlink'
import type { Box } from '#core/geometry/bounds'
import { overlap } from '#core/geometry/bounds'
import { GUTTER, TILE } from '~/canvas/tile'

/** A filled outline in the stack, bottom to top. */
export interface InkEntry {
  id: string
  colour: string
  data: string
  box: Box
  /** Path data of a region in which it hides what lies behind it; '' for none. */
  cover: string
  /** Entries of one layer are dimmed together; 0 leaves them out but for the small view. */
  layer: string
  opacity: number
}

let stack: (InkEntry & { path: Path2D })[] = []
let hidden = new Set<string>()

type Context = OffscreenCanvasRenderingContext2D

/** Draws the stack within a box; `all` also what others draw, and everything at full strength. */
function paint(ctx: Context, box: Box, all: boolean): void {
  let sheet: { layer: string; opacity: number; ctx: Context } | null = null
  const laySheet = (): void => {
    if (sheet) overlay(ctx, sheet.ctx.canvas, sheet.opacity)
    sheet = null
  }
  for (const entry of stack) {
    if (!overlap(entry.box, box)) continue
    const dimmed = !all && entry.opacity < 1
    if (sheet && (!dimmed || (sheet as { layer: string }).layer !== entry.layer)) laySheet()
    if (!all && entry.opacity === 0) continue
    if (dimmed && !sheet) sheet = { layer: entry.layer, opacity: entry.opacity, ctx: sheetLike(ctx) }
    const on: Context = (sheet as { ctx: Context } | null)?.ctx ?? ctx
    if (entry.cover) for (const under of new Set([ctx, on])) erase(under, entry.cover)
    if (!all && hidden.has(entry.id)) continue
    on.fillStyle = entry.colour
    on.fill(entry.path, 'nonzero')
  }
  laySheet()
}

/** A clear sheet of the same size and place, for a layer that is dimmed as a whole. */
function sheetLike(ctx: Context): Context {
  const sheet = new OffscreenCanvas(ctx.canvas.width, ctx.canvas.height).getContext('2d')!
  sheet.setTransform(ctx.getTransform())
  return sheet
}

function overlay(ctx: Context, sheet: OffscreenCanvas, opacity: number): void {
  ctx.save()
  ctx.resetTransform()
  ctx.globalAlpha = opacity
  ctx.drawImage(sheet, 0, 0)
  ctx.restore()
}

function erase(ctx: Context, data: string): void {
  ctx.globalCompositeOperation = 'destination-out'
  ctx.fill(new Path2D(data), 'nonzero')
  ctx.globalCompositeOperation = 'source-over'
}

const raster = {
  /** The stack in its order by id; `fresh` holds the entries that are new or have changed. */
  setStack(ids: string[], fresh: InkEntry[]): void {
    const known = new Map(stack.map((e) => [e.id, e]))
    for (const e of fresh) known.set(e.id, { ...e, path: new Path2D(e.data) })
    stack = ids.flatMap((id) => known.get(id) ?? [])
  },

  /** Entries drawn by somebody else for the moment. */
  hide(ids: string[]): void {
    hidden = new Set(ids)
  },

  /** The tile in column tx, row ty at `scale` device px per document px, with its gutter; null when it holds no ink. */
  tile(scale: number, tx: number, ty: number): ImageBitmap | null {
    const side = TILE / scale
    const rim = GUTTER / scale
    const box = { minX: tx * side - rim, minY: ty * side - rim, maxX: (tx + 1) * side + rim, maxY: (ty + 1) * side + rim }
    if (!stack.some((e) => !hidden.has(e.id) && overlap(e.box, box))) return null
    const canvas = new OffscreenCanvas(TILE + 2 * GUTTER, TILE + 2 * GUTTER)
    const ctx = canvas.getContext('2d')!
    ctx.setTransform(scale, 0, 0, scale, GUTTER - tx * TILE, GUTTER - ty * TILE)
    paint(ctx, box, false)
    const bitmap = canvas.transferToImageBitmap()
    return transfer(bitmap, [bitmap])
  },

  /** The whole stack small: `width` x `height` document px at `scale`. */
  preview(width: number, height: number, scale: number): ImageBitmap {
    const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)))
    const ctx = canvas.getContext('2d')!
    ctx.scale(scale, scale)
    paint(ctx, { minX: 0, minY: 0, maxX: width, maxY: height }, true)
    const bitmap = canvas.transferToImageBitmap()
    return transfer(bitmap, [bitmap])
  },

  /** A PNG of the stack, `width` x `height` document px at `scale`, on `paper` or clear. */
  async picture(width: number, height: number, scale: number, paper: string | null): Promise<Blob> {
    const canvas = new OffscreenCanvas(Math.round(width * scale), Math.round(height * scale))
    const ctx = canvas.getContext('2d')!
    if (paper) {
      ctx.fillStyle = paper
      ctx.fillRect(0, 0, canvas.width, canvas.height)
    }
    ctx.scale(scale, scale)
    paint(ctx, { minX: 0, minY: 0, maxX: width, maxY: height }, true)
    return canvas.convertToBlob({ type: 'image/png' })
  },
}

export type RasterWorker = typeof raster

expose(raster)
