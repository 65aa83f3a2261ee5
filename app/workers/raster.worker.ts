import { expose, transfer } from 'comlink'
import { overlap } from '#core/geometry/bounds'
import type { InkEntry } from '~/canvas/paint-stack'
import { paintStack } from '~/canvas/paint-stack'
import { GUTTER, TILE } from '~/canvas/tile'

let stack: readonly InkEntry[] = []
let hidden: ReadonlySet<string> = new Set()

const raster = {
  /** The stack in its order by id; `fresh` holds the entries that are new or have changed. */
  setStack(ids: string[], fresh: InkEntry[]): void {
    const known = new Map([...stack, ...fresh].map((e) => [e.id, e]))
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
    paintStack(ctx, stack, { box, leftOut: hidden })
    const bitmap = canvas.transferToImageBitmap()
    return transfer(bitmap, [bitmap])
  },

  /** The whole stack small: `width` x `height` document px at `scale`. */
  preview(width: number, height: number, scale: number): ImageBitmap {
    const bitmap = wholePage(width, height, scale).transferToImageBitmap()
    return transfer(bitmap, [bitmap])
  },

  /** A PNG of the stack, `width` x `height` document px at `scale`, on `paper` or clear. */
  async picture(width: number, height: number, scale: number, paper: string | null): Promise<Blob> {
    const canvas = wholePage(width, height, scale)
    if (paper) {
      const ctx = canvas.getContext('2d')!
      ctx.resetTransform()
      ctx.globalCompositeOperation = 'destination-over'
      ctx.fillStyle = paper
      ctx.fillRect(0, 0, canvas.width, canvas.height)
    }
    return canvas.convertToBlob({ type: 'image/png' })
  },
}

function wholePage(width: number, height: number, scale: number): OffscreenCanvas {
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)))
  const ctx = canvas.getContext('2d')!
  ctx.scale(scale, scale)
  paintStack(ctx, stack, { box: { minX: 0, minY: 0, maxX: width, maxY: height }, full: true })
  return canvas
}

export type RasterWorker = typeof raster

expose(raster)
