import { expose, transfer } from 'comlink'
import type { Box } from '#core/geometry/bounds'
import { overlap } from '#core/geometry/bounds'
import type { InkEntry, InkPart } from '~/painting/paint-stack'
import { paintStack } from '~/painting/paint-stack'
import { GUTTER, TILE } from '~/painting/tile'
import type { Encoded } from './dictionary'
import { DictionaryDecoder } from './dictionary'

let stack: readonly InkEntry[] = []
const held = new DictionaryDecoder<InkPart>()
let hidden: ReadonlySet<string> = new Set()

/** So many tiles are kept to be painted over where something in them changes. */
const KEPT = 24
/** The tiles painted last, by scale and place, the newest last. */
const kept = new Map<string, OffscreenCanvasRenderingContext2D>()

/** Device px around what changed that are painted anew with it: edges are smoothed. */
const RIM = 2

const raster = {
  /**
   * The stack in its order by id, with how many of the parts in a row are each one's, or null where that is as before; `fresh`
   * are the entries that are new or have changed, without them.
   */
  setStack(order: { id: string; parts: number }[] | null, fresh: InkEntry[], told: Encoded<InkPart>): void {
    const known = new Map([...stack, ...fresh].map((e) => [e.id, e]))
    const all = held.take(told)
    let next = 0
    stack = (order ?? stack.map((e) => ({ id: e.id, parts: e.parts.length }))).map(({ id, parts }) => ({
      ...known.get(id)!,
      parts: all.slice(next, (next += parts)),
    }))
  },

  /** Entries that changed where they stand, with their parts. */
  replace(entries: readonly (readonly [place: number, entry: InkEntry])[]): void {
    const anew = new Map(entries)
    stack = stack.map((entry, place) => anew.get(place) ?? entry)
  },

  /** Entries drawn by somebody else for the moment. */
  hide(ids: string[]): void {
    hidden = new Set(ids)
  },

  /**
   * The tile in column tx, row ty at `scale` device px per document px, with its gutter; null when it holds no ink.
   * `changed` are the boxes, document px, outside of which it is as it was when it was asked for last; null for all of it.
   */
  async tile(scale: number, tx: number, ty: number, changed: readonly Box[] | null): Promise<ImageBitmap | null> {
    const key = `${scale} ${tx} ${ty}`
    const side = TILE / scale
    const rim = GUTTER / scale
    const box = {
      minX: tx * side - rim,
      minY: ty * side - rim,
      maxX: (tx + 1) * side + rim,
      maxY: (ty + 1) * side + rim,
    }
    const before = kept.get(key)
    kept.delete(key)
    if (!stack.some((e) => !hidden.has(e.id) && overlap(e.box, box))) return null
    const ctx = before ?? new OffscreenCanvas(TILE + 2 * GUTTER, TILE + 2 * GUTTER).getContext('2d')!
    ctx.setTransform(scale, 0, 0, scale, GUTTER - tx * TILE, GUTTER - ty * TILE)
    for (const within of before ? (changed ?? [box]) : [box]) paintWithin(ctx, within)
    kept.set(key, ctx)
    for (const oldest of kept.keys()) if (kept.size > KEPT) kept.delete(oldest)
    const bitmap = await createImageBitmap(ctx.canvas)
    return transfer(bitmap, [bitmap])
  },

  /** The whole stack small: `width` x `height` document px at `scale`. */
  preview(width: number, height: number, scale: number): ImageBitmap {
    const bitmap = wholePage(width, height, scale).transferToImageBitmap()
    return transfer(bitmap, [bitmap])
  },
}

/** Paints the stack anew within whole device px around a box of the page. */
function paintWithin(ctx: OffscreenCanvasRenderingContext2D, box: Box): void {
  const { a: scale, e, f } = ctx.getTransform()
  const [left, top] = [Math.floor(box.minX * scale + e) - RIM, Math.floor(box.minY * scale + f) - RIM]
  const [right, bottom] = [Math.ceil(box.maxX * scale + e) + RIM, Math.ceil(box.maxY * scale + f) + RIM]
  ctx.save()
  ctx.resetTransform()
  ctx.beginPath()
  ctx.rect(left, top, right - left, bottom - top)
  ctx.clip()
  ctx.clearRect(left, top, right - left, bottom - top)
  ctx.setTransform(scale, 0, 0, scale, e, f)
  paintStack(ctx, stack, {
    box: { minX: (left - e) / scale, minY: (top - f) / scale, maxX: (right - e) / scale, maxY: (bottom - f) / scale },
    leftOut: hidden,
  })
  ctx.restore()
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
