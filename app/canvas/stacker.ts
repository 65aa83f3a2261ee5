import { findLine } from '#core/model/find'
import { colourOf, shownItems } from '#core/model/queries'
import type { Drawing, Layer, Line, Shape } from '#core/model/model'
import type { Box } from '#core/geometry/bounds'
import { emptyBox, include } from '#core/geometry/bounds'
import { isSameList } from '#core/same-list'
import type { DrawnShape } from '~/workers/contour-book'
import type { CastOutline, Outline } from '~/painting/outline'
import { outlineOfContours } from '~/painting/outline'
import type { OutlineCache } from './outline-cache'
import type { InkEntry, InkPart } from '~/painting/paint-stack'
import type { TuckedLines } from './tucked-lines'

export const entryOf = (
  o: Outline,
  drawing: Drawing,
  layer: Pick<Layer, 'id' | 'opacity'> | null = null,
  behind: readonly InkPart[] = [],
): InkEntry => ({
  id: o.id,
  colour: colourOf(drawing, o.ink),
  parts: o.data ? [o] : [],
  box: o.box,
  behind,
  layer: layer?.id ?? '',
  opacity: layer?.opacity ?? 1,
})

/** The box about all parts, without a box for each step. */
function boxAbout(parts: readonly { box: Box }[]): Box {
  const about = emptyBox()
  for (const { box } of parts) {
    include(about, box.minX, box.minY)
    include(about, box.maxX, box.maxY)
  }
  return about
}

interface Seen {
  outline: Outline
  entry: InkEntry
}

/** Makes the stack of ink of a drawing's lines and solids; entries that stay the same are the same objects. */
export class Stacker {
  private readonly shapes = new WeakMap<Shape, Outline>()
  /** By item, the entry that it was last seen with. */
  private last = new Map<string, Seen>()
  private fills: readonly Outline[] = []
  private casts: readonly CastOutline[] = []
  private tints: ReadonlyMap<string, string> = new Map()
  private readonly inTint = new WeakMap<Outline, Outline>()
  private lastShapes = new Map<string, InkEntry>()
  private versions = 0

  constructor(
    private readonly cache: OutlineCache,
    private readonly shown: (line: Line) => Line,
    private readonly tucked: TuckedLines,
  ) {}

  /** Takes what lies poured beneath all lines, bottom to top; answers whether that is other than before. */
  takeFills(fills: readonly Outline[]): boolean {
    const was = this.fills
    this.fills = fills
    return !isSameList(was, fills)
  }

  /** Takes what forms throw on others; answers whether that is other than before. */
  takeCasts(casts: readonly CastOutline[]): boolean {
    const isSame = isSameList(this.casts, casts)
    this.casts = casts
    return !isSame
  }

  /** Takes the inks of lines that have a tone of a fill; answers whether they are other than before. */
  takeTints(tints: readonly [line: string, ink: string][]): boolean {
    const was = this.tints
    this.tints = new Map(tints)
    return was.size !== tints.length || tints.some(([id, ink]) => was.get(id) !== ink)
  }

  /**
   * Entries of the visible layers, bottom to top, those of layers left out at no strength; lines that never had an outline
   * yet are left out.
   */
  linesOf(drawing: Drawing, isShown: (layer: Layer) => boolean): InkEntry[] {
    const before = this.last
    this.last = new Map()
    const poured = drawing.fills?.length ? this.fills.map((f) => this.plainEntry(f, before.get(f.id), drawing)) : []
    const entries = drawing.layers.flatMap((layer) => {
      const look = { id: layer.id, opacity: isShown(layer) ? layer.opacity : 0 }
      return shownItems(layer).flatMap((item) => {
        const seen = this.seenOf(item, look, drawing, before.get(item.id))
        if (!seen) return []
        this.last.set(item.id, seen)
        return [seen.entry]
      })
    })
    for (const cast of this.casts) {
      const place = entries.findLastIndex((e) => cast.above.includes(e.id))
      if (place >= 0) entries.splice(place + 1, 0, this.plainEntry(cast, before.get(cast.id), drawing, entries[place]!))
    }
    return [...poured, ...entries]
  }

  /**
   * A stack that `linesOf` made with the entries of a few lines made anew: what a hand does to one line among thousands must
   * not cost what all do. Null where that is not all that is other than before.
   */
  withLinesAnew(
    stack: readonly InkEntry[],
    ids: readonly string[],
    drawing: Drawing,
    isShown: (layer: Layer) => boolean,
  ): InkEntry[] | null {
    const entries = [...stack]
    for (const id of ids) {
      const found = findLine(drawing, id)
      const was = this.last.get(id)
      if (!found?.layer.visible || found.line.hidden || !was) return null
      const look = { id: found.layer.id, opacity: isShown(found.layer) ? found.layer.opacity : 0 }
      const seen = this.seenOf(found.line, look, drawing, was)
      const place = seen ? stack.indexOf(was.entry) : -1
      if (!seen || place < 0) return null
      this.last.set(id, seen)
      entries[place] = seen.entry
    }
    return entries
  }

  private seenOf(
    item: Line | Shape,
    look: { id: string; opacity: number },
    drawing: Drawing,
    was: Seen | undefined,
  ): Seen | null {
    const shown = 'path' in item ? this.shown(item) : item
    const plain =
      this.tucked.of(shown) ??
      ('path' in shown ? (this.cache.get(shown) ?? this.cache.lastOf(shown.id)) : this.outlineOf(shown))
    if (!plain) return null
    const outline = this.tinted(plain)
    if (!outline.data) return null
    const behind = this.tucked.behind(shown)
    const same = this.same(was, outline, behind, look, drawing)
    return same && was ? was : { outline, entry: entryOf(outline, drawing, look, behind) }
  }

  /** An outline in the ink of its tint; the same object for the same outline and ink. */
  private tinted(outline: Outline): Outline {
    const ink = this.tints.get(outline.id)
    if (!ink) return outline
    const was = this.inTint.get(outline)
    if (was?.ink === ink) return was
    const tinted = { ...outline, ink }
    this.inTint.set(outline, tinted)
    return tinted
  }

  /** The entry of what is no item of a layer, or of that of the entry that it lies upon. */
  private plainEntry(outline: Outline, was: Seen | undefined, drawing: Drawing, on?: InkEntry): InkEntry {
    const look = { id: on?.layer ?? '', opacity: on?.opacity ?? 1 }
    const entry = this.same(was, outline, [], look, drawing) ?? entryOf(outline, drawing, look)
    this.last.set(outline.id, { outline, entry })
    return entry
  }

  /** Entries of derived shapes; they know where they differ from those of the answer before. */
  shapesOf(drawing: Drawing, drawn: readonly DrawnShape[]): InkEntry[] {
    const before = this.lastShapes
    this.lastShapes = new Map()
    return drawn.map(({ shape, parts, changed }) => {
      const was = before.get(shape.id)
      const colour = colourOf(drawing, shape.ink)
      const isSame =
        was?.colour === colour && was.parts.length === parts.length && parts.every((p, i) => p === was.parts[i])
      const entry: InkEntry = isSame
        ? was
        : {
            id: shape.id,
            colour,
            parts,
            box: boxAbout(parts),
            behind: [],
            layer: '',
            opacity: 1,
            version: { now: ++this.versions, before: was?.version?.now ?? 0, changed },
          }
      this.lastShapes.set(shape.id, entry)
      return entry
    })
  }

  private same(
    was: Seen | undefined,
    outline: Outline,
    behind: readonly InkPart[],
    look: { id: string; opacity: number },
    drawing: Drawing,
  ): InkEntry | null {
    if (!was || was.outline !== outline || !isSameList(was.entry.behind, behind)) return null
    const { entry } = was
    return entry.layer === look.id && entry.opacity === look.opacity && entry.colour === colourOf(drawing, outline.ink)
      ? entry
      : null
  }

  private outlineOf(shape: Shape): Outline {
    let outline = this.shapes.get(shape)
    if (!outline) this.shapes.set(shape, (outline = outlineOfContours(shape, shape.contours)))
    return outline
  }
}
