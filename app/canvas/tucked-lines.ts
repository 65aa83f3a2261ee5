import { perUsualPx, shapeSettingsOf } from '#core/model/fineness'
import type { Drawing, Line, Shape } from '#core/model/model'
import { toPaths } from '#core/arrangement/contours'
import { shiftBetween } from '#core/editing/move'
import type { Path } from '#core/geometry/path'
import { pathData } from '#core/geometry/path'
import { boxOfPath } from '#core/geometry/known'
import type { InFrontOf } from '#core/ink/front/as-seen'
import { inkedItems, seenLines } from '#core/model/queries'
import { remembered } from '#core/remembered'
import { Outlines } from '#core/ink/outlines/outlines'
import { nearTips, tuckedAmong } from '#core/ink/ends/tuck-stage'
import type { Outline } from '~/painting/outline'
import { outlineOfContours, shiftedOutline } from '~/painting/outline'
import type { InkPart } from '~/painting/paint-stack'

/** A line may take so long in a frame, ms. */
const MOST = 4

/** With more lines about its ends than this a line is left to the session: the first time alone would take longer than a frame. */
const MOST_NEAR = 6

const NOTHING: readonly InkPart[] = []

/** A closed path as a part of a picture. */
const partOf = remembered((path: Path): InkPart => ({ data: pathData(path, 4), box: boxOfPath(path) }))

/** What lines and solids show that do not show all of their ink: as the session says, and for a line under the hand here and now. */
export class TuckedLines {
  private told = new Map<string, { item: Line | Shape; outline: Outline }>()
  private inFront: InFrontOf = new Map()
  /** Every line and solid as the session had it when it answered last. */
  private seen = new Map<string, Line | Shape>()
  private items: readonly (Line | Shape)[] = []
  /** Lines, by id, that take too long to tuck in a frame. */
  private costly = new Set<string>()
  private here: {
    tolerance: number
    outlines: Outlines
    known: WeakMap<Line, { among: Drawing; outline: Outline | null }>
  } | null = null

  /** Takes what the session says of a drawing; answers the items, by id, of which it says something else than before. */
  take(drawing: Drawing, clipped: readonly Outline[], inFront: InFrontOf): string[] {
    const before = this.told
    this.inFront = inFront
    this.see(inkedItems(drawing))
    this.told = new Map()
    const others: string[] = []
    for (const outline of clipped) {
      const was = before.get(outline.id)
      const item = this.seen.get(outline.id)!
      if (was?.outline !== outline) others.push(outline.id)
      this.told.set(outline.id, was?.item === item && was.outline === outline ? was : { item, outline })
    }
    if (before.size + others.length > this.told.size)
      for (const id of before.keys()) if (!this.told.has(id)) others.push(id)
    return others
  }

  /** What an item shows as far as anybody said; null where that is all of its ink, or it has changed since. */
  of(item: Line | Shape): Outline | null {
    if (this.seen.get(item.id) === item) return this.toldOf(item)
    return 'path' in item ? (this.here?.known.get(item)?.outline ?? null) : null
  }

  /** What lies before an item that has changed since the session said what it shows: nothing of it is to show there. */
  behind(item: Line | Shape): readonly InkPart[] {
    const paths = this.seen.get(item.id) === item ? undefined : this.inFront.get(item.id)
    return paths ? paths.map(partOf) : NOTHING
  }

  /** As `of`, while the line is under the hand: worked out as long as there is `time` in the frame, else moved along. */
  inFrame(line: Line, drawing: Drawing, time: () => boolean): Outline | null {
    if (this.seen.get(line.id) === line) return this.toldOf(line)
    // What took long last time would stop the hand: the session has it as soon as the hand rests.
    if (!time() || this.costly.has(line.id)) return this.moved(line)
    const began = performance.now()
    const outline = this.now(line, drawing)
    if (performance.now() - began > MOST) this.costly.add(line.id)
    return outline
  }

  /** Where no line came or went, only what changed is noted: this is done while the hand drags. */
  private see(items: readonly (Line | Shape)[]): void {
    const before = this.items
    this.items = items
    if (items.length === before.length && items.every((l, i) => l === before[i] || l.id === before[i]!.id)) {
      for (let i = 0; i < items.length; i++) if (items[i] !== before[i]) this.seen.set(items[i]!.id, items[i]!)
      return
    }
    this.seen = new Map()
    for (const item of items) this.seen.set(item.id, item)
  }

  private toldOf({ id }: Line | Shape): Outline | null {
    return this.told.get(id)?.outline ?? null
  }

  /** What a line shows that was only moved since the session answered, moved along. */
  private moved(line: Line): Outline | null {
    // What lies before it stays where it is.
    const told = this.inFront.has(line.id) ? undefined : this.told.get(line.id)
    const d = told && 'path' in told.item && shiftBetween(told.item, line)
    return d ? shiftedOutline(told.outline, d) : null
  }

  /** Works out here and now what a line of a drawing shows; null where it shows all of its ink. */
  private now(line: Line, drawing: Drawing): Outline | null {
    if (drawing.settings.tuck === false) return null
    const { tolerance } = shapeSettingsOf(drawing)
    if (this.here?.tolerance !== tolerance)
      this.here = { tolerance, outlines: new Outlines(tolerance), known: new WeakMap() }
    const { outlines, known } = this.here
    const was = known.get(line)
    if (was?.among === drawing) return was.outline
    const near = nearTips(line, seenLines(drawing), perUsualPx(drawing.page))
    if (near.length > MOST_NEAR) {
      this.costly.add(line.id)
      return this.moved(line)
    }
    const region = tuckedAmong(line, near, outlines, tolerance, perUsualPx(drawing.page))
    const outline =
      'message' in region || region === outlines.of(line) ? null : outlineOfContours(line, toPaths(region.contours))
    known.set(line, { among: drawing, outline })
    return outline
  }
}
