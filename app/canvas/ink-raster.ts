import type { Remote } from 'comlink'
import type { Box } from '#core/geometry/bounds'
import { overlap, uniteBoxes } from '#core/geometry/bounds'
import type { RasterWorker } from '~/workers/raster.worker'
import { DictionaryEncoder } from '~/workers/dictionary'
import type { InkEntry, InkPart } from '~/painting/paint-stack'
import { GUTTER, TILE } from '~/painting/tile'
import type { Viewport } from './viewport'
import { boxInView, matrixOf } from './viewport'

/** Tiles that are out of sight are kept for when the page comes back, so many of them at one scale. */
const SPARE_TILES = 24

/** How long the hand must rest before a new zoom is drawn sharply, ms. */
const REST = 70

/** So many entries that changed in their places are sent as they are. */
const FEW = 64

/** Boxes that changed in a tile, past which all that they span counts as one. */
const MOST_BOXES = 16

interface Tile {
  bitmap: ImageBitmap | null
  /** What changed in it since, page px: the old bitmap shows until the new one is there. */
  changed: readonly Box[]
}

/** A tile that the worker was asked for. */
type Asked = symbol

/** Tiles of one scale. */
interface Level {
  scale: number
  tiles: Map<string, Tile>
}

/**
 * Shows the ink from tiles that a worker draws. Moving and zooming only place bitmaps; when the hand rests, the tiles of
 * the new scale are drawn, and until they are all there the old ones stay beneath.
 */
export class InkRaster {
  private view: Viewport = { x: 0, y: 0, zoom: 1, angle: 0, mirrored: false }
  private level: Level = { scale: 0, tiles: new Map() }
  private older: Level | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private frame = 0
  /** What the worker is asked for, by tile; an answer to an older question means nothing. */
  private readonly asking = new Map<string, Asked>()
  private stack: readonly InkEntry[] = []
  private waiting: (() => void)[] = []
  private readonly sent = new DictionaryEncoder<InkPart>()

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly worker: Remote<RasterWorker>,
  ) {}

  private get scale(): number {
    return this.view.zoom * window.devicePixelRatio
  }

  setView(view: Viewport): void {
    this.view = view
    this.draw()
    clearTimeout(this.timer)
    if (this.scale === this.level.scale) this.fill()
    else this.timer = setTimeout(() => this.sharpen(), this.level.scale === 0 ? 0 : REST)
  }

  resize(width: number, height: number): void {
    const k = window.devicePixelRatio
    this.canvas.width = Math.round(width * k)
    this.canvas.height = Math.round(height * k)
    this.draw()
    this.fill()
  }

  /** New ink: tiles that anything changed in are drawn again. */
  setStack(entries: readonly InkEntry[]): void {
    const places = changedPlaces(this.stack, entries)
    if (places && places.length <= FEW && places.every((i) => isLine(entries[i]!))) {
      const boxes = places.flatMap((i) => [this.stack[i]!.box, entries[i]!.box])
      this.stack = entries
      if (!places.length) return
      void this.worker.replace(places.map((i) => [i, { ...entries[i]!, parts: entries[i]!.parts.map(bare) }]))
      this.spoil(boxes)
      return
    }
    const boxes = changedBoxes(this.stack, entries)
    const known = new Set(this.stack)
    const before = this.stack
    const isInOrder =
      before.length === entries.length &&
      entries.every((e, i) => e.id === before[i]!.id && e.parts.length === before[i]!.parts.length)
    this.stack = entries
    const { numbers, fresh } = this.sent.tell(entries.flatMap((e) => e.parts))
    void this.worker.setStack(
      isInOrder ? null : entries.map((e) => ({ id: e.id, parts: e.parts.length })),
      entries.filter((e) => !known.has(e)).map((e) => ({ ...e, parts: [] })),
      {
        numbers,
        fresh: fresh.map(([n, part]) => [n, bare(part)]),
      },
    )
    this.spoil(boxes)
  }

  /** Leaves entries to somebody else; resolves when no tile shows them any more. */
  hide(ids: readonly string[], boxes: readonly Box[]): Promise<void> {
    void this.worker.hide([...ids])
    this.spoil(boxes)
    return new Promise((resolve) => {
      this.waiting.push(resolve)
      this.tellWhenDone()
    })
  }

  destroy(): void {
    clearTimeout(this.timer)
    cancelAnimationFrame(this.frame)
    this.asking.clear()
    giveBack(this.level)
    if (this.older) giveBack(this.older)
  }

  private sharpen(): void {
    const done =
      this.level.scale > 0 && this.visibleKeys(this.level).every((k) => this.level.tiles.get(k)?.bitmap !== undefined)
    if (!done) giveBack(this.level)
    else {
      if (this.older) giveBack(this.older)
      this.older = this.level
    }
    this.level = { scale: this.scale, tiles: new Map() }
    this.asking.clear()
    this.fill()
  }

  private spoil(boxes: readonly Box[]): void {
    if (!boxes.length) return
    const touching = (key: string): Box[] => boxes.filter((b) => overlap(b, boxOfTile(key, this.level)))
    for (const [key, tile] of this.level.tiles) {
      const changed = [...tile.changed, ...touching(key)]
      tile.changed = changed.length > MOST_BOXES ? [changed.reduce(uniteBoxes)] : changed
    }
    // Tiles under way that nothing changed in are as good as they were.
    for (const key of this.asking.keys()) if (touching(key).length) this.asking.delete(key)
    this.fill()
  }

  private visibleKeys(level: Level): string[] {
    const side = TILE / level.scale
    const k = window.devicePixelRatio
    const box = boxInView(this.view, { width: this.canvas.width / k, height: this.canvas.height / k })
    const keys: string[] = []
    for (let ty = Math.floor(box.minY / side); ty <= Math.floor(box.maxY / side); ty++) {
      for (let tx = Math.floor(box.minX / side); tx <= Math.floor(box.maxX / side); tx++) keys.push(`${tx},${ty}`)
    }
    return keys
  }

  /** Asks the worker for the visible tiles that are missing or stale. */
  private fill(): void {
    const { level } = this
    if (level.scale === 0 || level.scale !== this.scale) return
    for (const key of this.visibleKeys(level)) {
      const tile = level.tiles.get(key)
      if ((tile && !tile.changed.length) || this.asking.has(key)) continue
      const asked = Symbol(key)
      this.asking.set(key, asked)
      const [tx, ty] = key.split(',').map(Number) as [number, number]
      void this.worker.tile(level.scale, tx, ty, tile ? tile.changed : null).then((bitmap) => {
        if (this.asking.get(key) !== asked) {
          bitmap?.close()
          return
        }
        level.tiles.get(key)?.bitmap?.close()
        level.tiles.delete(key)
        level.tiles.set(key, { bitmap, changed: [] })
        this.asking.delete(key)
        this.tellWhenDone()
        this.draw()
      })
    }
    this.tellWhenDone()
  }

  private tellWhenDone(): void {
    if (this.asking.size) return
    if (this.older) giveBack(this.older)
    this.older = null
    this.giveBackSpare()
    for (const resolve of this.waiting.splice(0)) resolve()
  }

  /** Gives back the tiles out of sight that were drawn longest ago, past those that are kept. */
  private giveBackSpare(): void {
    const { tiles, scale } = this.level
    if (scale === 0) return
    const seen = new Set(this.visibleKeys(this.level))
    const spare = [...tiles.keys()].filter((key) => !seen.has(key))
    for (const key of spare.slice(0, Math.max(0, spare.length - SPARE_TILES))) {
      tiles.get(key)!.bitmap?.close()
      tiles.delete(key)
    }
  }

  private draw(): void {
    cancelAnimationFrame(this.frame)
    this.frame = requestAnimationFrame(() => {
      const ctx = this.canvas.getContext('2d')!
      ctx.setTransform(1, 0, 0, 1, 0, 0)
      ctx.clearRect(0, 0, this.canvas.width, this.canvas.height)
      if (this.older) this.place(ctx, this.older)
      this.place(ctx, this.level)
    })
  }

  private place(ctx: CanvasRenderingContext2D, level: Level): void {
    if (level.scale === 0) return
    const box = boxInView(this.view, {
      width: this.canvas.width / window.devicePixelRatio,
      height: this.canvas.height / window.devicePixelRatio,
    })
    const [a, b, c, d, e, f] = matrixOf(this.view, window.devicePixelRatio)
    const upright = b === 0 && a > 0
    const exact = upright && this.scale === level.scale
    // A turned tile reaches a little into its neighbours, or the paper would show between them.
    const gutter = upright ? 0 : GUTTER
    for (const [key, tile] of level.tiles) {
      const at = boxOfTile(key, level)
      if (!overlap(at, box)) continue
      const x = e + a * at.minX + c * at.minY
      const y = f + b * at.minX + d * at.minY
      ctx.setTransform(
        a / level.scale,
        b / level.scale,
        c / level.scale,
        d / level.scale,
        exact ? Math.round(x) : x,
        exact ? Math.round(y) : y,
      )
      // A tile of this level replaces what an older one shows beneath it.
      if (level === this.level && this.older) ctx.clearRect(0, 0, TILE, TILE)
      if (!tile.bitmap) continue
      const size = TILE + 2 * gutter
      ctx.drawImage(tile.bitmap, GUTTER - gutter, GUTTER - gutter, size, size, -gutter, -gutter, size, size)
    }
    ctx.setTransform(1, 0, 0, 1, 0, 0)
  }
}

/** A part without the part that it was moved from, which has the same data. */
const bare = ({ data, box, shift }: InkPart): InkPart => ({
  data,
  box,
  ...(shift && { shift: { of: { data, box }, by: shift.by } }),
})

/** The entry of one line: of a shape it is known where it changed. */
const isLine = ({ parts, version }: InkEntry): boolean => parts.length === 1 && !version

/** The places at which entries changed; null where they are others, or in another order. */
function changedPlaces(before: readonly InkEntry[], after: readonly InkEntry[]): number[] | null {
  if (before.length !== after.length) return null
  const places: number[] = []
  for (let i = 0; i < after.length; i++) {
    if (after[i] === before[i]) continue
    if (after[i]!.id !== before[i]!.id || after[i]!.parts.length !== before[i]!.parts.length) return null
    places.push(i)
  }
  return places
}

/** Boxes of the entries that came, went, moved in the stack or changed. */
function changedBoxes(before: readonly InkEntry[], after: readonly InkEntry[]): Box[] {
  const old = new Map(before.map((e, i) => [e.id, { e, i }]))
  const boxes: Box[] = []
  after.forEach((e, i) => {
    const was = old.get(e.id)
    old.delete(e.id)
    if (was && (was.i === i || before.length !== after.length)) {
      if (was.e === e || (sameLook(was.e, e) && sameParts(was.e, e))) return
      if (e.version?.changed && e.version.before === was.e.version?.now && sameLook(was.e, e)) {
        boxes.push(...e.version.changed)
        return
      }
    }
    boxes.push(e.box)
    if (was) boxes.push(was.e.box)
  })
  for (const { e } of old.values()) boxes.push(e.box)
  return boxes
}

const sameLook = (a: InkEntry, b: InkEntry): boolean =>
  a.colour === b.colour &&
  a.opacity === b.opacity &&
  a.behind.length === b.behind.length &&
  a.behind.every((h, i) => h.data === b.behind[i]!.data)

const sameParts = (a: InkEntry, b: InkEntry): boolean =>
  a.parts.length === b.parts.length &&
  a.parts.every(
    (p, i) =>
      p === b.parts[i] ||
      (p.data === b.parts[i]!.data && p.box.minX === b.parts[i]!.box.minX && p.box.minY === b.parts[i]!.box.minY),
  )

/** Where a tile lies, px of the page. */
function boxOfTile(key: string, { scale }: Level): Box {
  const side = TILE / scale
  const [tx, ty] = key.split(',').map(Number) as [number, number]
  return { minX: tx * side, minY: ty * side, maxX: (tx + 1) * side, maxY: (ty + 1) * side }
}

/** Gives the memory of all tiles of a level back. */
function giveBack({ tiles }: Level): void {
  for (const { bitmap } of tiles.values()) bitmap?.close()
  tiles.clear()
}
