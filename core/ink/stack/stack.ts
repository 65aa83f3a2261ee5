import { shownItems } from '../../model/queries'
import type { Amendment, Drawing, Line, Shape } from '../../model/model'
import type { Path } from '../../geometry/path'
import { orElse } from '../../arrangement/as-far-as-possible'
import { scaled } from '../../turns'
import type { EndContact } from '../../relations/end-contacts'
import type { CornerPair } from '../ends/corner-stage'
import type { Ends } from '../ends/ends'
import type { InFrontOf } from '../front/as-seen'
import { asSeen } from '../front/as-seen'
import type { CastPart, Casts } from '../front/casts'
import type { Fronts, Hidden, InFront } from '../front/fronts'
import { saysFronts } from '../front/fronts'
import { toPaths } from '../../arrangement/contours'
import { remembered } from '../../remembered'
import type { Failure, Outlines, Region } from '../outlines/outlines'
import type { Shown, Trimmed, Trims } from '../pieces/trim-stage'
import type { Inked } from '../ends/inked'
import type { Tucks } from '../ends/tuck-stage'

/** Something of one ink in the stack: an item's region less what lies before it. */
export interface Part {
  item: Line | Shape
  region: Region
  /** A line that is hidden in part, as it is seen. */
  seen?: Line
}

/** What a drawing's visible layers come to. */
export interface Stack extends Trimmed {
  /** From the bottom to the top. */
  parts: Part[]
  /** By id of the lines and solids that do not show all of their ink, what they show. */
  clipped: ReadonlyMap<string, Region>
  /** Where two ends come together. */
  corners: readonly CornerPair[]
  /** Ends that meet the body of a line, or go past one. */
  ends: () => EndContact[]
  /** What lies in front of lines and solids that it hides in part. */
  inFront: InFrontOf
  /** Ids of what lies behind a form, not only beneath what covers all below it. */
  behindForms: ReadonlySet<string>
  /** What forms throw. */
  casts: readonly CastPart[]
  /** Ids of decisions about what lies in front that find no forms. */
  frontsWait: readonly string[]
  /** Items that have no ink, or none that is finished as it should be. */
  failed: Failure[]
}

/** The amendments of a drawing of one kind. */
export const amended = <K extends Amendment['kind']>(
  { amendments }: Pick<Drawing, 'amendments'>,
  kind: K,
): Extract<Amendment, { kind: K }>[] =>
  (amendments ?? []).filter((a): a is Extract<Amendment, { kind: K }> => a.kind === kind)

/** So many outlines are worked out between two signs of progress. */
const AT_A_TIME = 8

/** The share of the work that outlines are, as it is told. */
const OUTLINED = 0.8

const UNCOVERED = 'What lies before it cannot be cut out of it, and it is shown whole. Move one of the two a little.'

/** The stack of a drawing's visible layers. */
export function* stackOf(
  drawing: Drawing,
  outlines: Outlines,
  tucks: Tucks | null,
  trims: Trims,
  { fronts, casts }: { fronts: Fronts; casts: Casts },
  ends: Ends,
): Generator<number, Stack> {
  const items = drawing.layers.flatMap(shownItems)
  const failed: Failure[] = []
  const uncovered = (id: string, region: Region, over: readonly Path[]): Region =>
    orElse(
      () => outlines.uncovered(region, over),
      region,
      () => failed.push({ id, message: UNCOVERED }),
    )
  const outlined: { item: Line | Shape; region: Region }[] = []
  let fresh = 0
  for (const [i, item] of items.entries()) {
    if (!outlines.has(item) && ++fresh % AT_A_TIME === 0) yield (OUTLINED * i) / items.length
    const region = outlines.of(item)
    if ('message' in region) failed.push(region)
    else outlined.push({ item, region })
  }
  const inFront = frontsOf(drawing, outlined, fronts, ends)
  const behind = (id: string): readonly Path[] => hiddenPaths(inFront.hidden.get(id), outlines)
  const inked = new Map<string, Inked>()
  for (const { item, region } of outlined)
    inked.set(item.id, { item, region, seen: uncovered(item.id, region, behind(item.id)) })
  const tucked = tucks
    ? yield* scaled(
        tucks.of(inked, amended(drawing, 'corner'), { style: drawing.settings.corner ?? 'caps' }, inFront.goesOn),
        OUTLINED,
        1 - OUTLINED,
      )
    : NOTHING
  const shown = new Map<string, Shown>()
  for (const [id, own] of inked) {
    const region = tucked.get(id)
    shown.set(id, region ? { item: own.item, region } : own)
  }
  const trimmed = trims.of(shown, amended(drawing, 'trim'))
  const clipped = new Map(trimmed.clipped.size ? [...tucked, ...trimmed.clipped] : tucked)
  for (const id of inFront.hidden.keys()) {
    const own = clipped.get(id) ?? inked.get(id)?.region
    if (own) clipped.set(id, uncovered(id, own, behind(id)))
  }
  const parts: Part[] = []
  for (const { item, seen } of inked.values()) {
    const region = clipped.get(item.id) ?? seen
    if (!region.contours.length) continue
    const loops = inFront.hidden.get(item.id)?.loops
    parts.push(loops && 'path' in item ? { item, region, seen: asSeen(item, loops) } : { item, region })
  }
  const cast = casts.of(inFront.casts, drawing)
  for (const { part, above } of cast) {
    const place = parts.findLastIndex((p) => above.has(p.item.id))
    if (place >= 0) parts.splice(place + 1, 0, part)
  }
  if (tucks) failed.push(...tucks.failed())
  return {
    parts,
    clipped,
    trims: trimmed.results,
    corners: tucks?.pairs ?? [],
    ends: () => tucks?.meeting() ?? [],
    shown,
    inFront: new Map([...inFront.hidden].map(([id, { loops }]) => [id, loops])),
    behindForms: new Set([...inFront.hidden].flatMap(([id, { byForm }]) => (byForm ? [id] : []))),
    casts: cast,
    frontsWait: inFront.waits,
    failed,
  }
}

const NOTHING: ReadonlyMap<string, Region> = new Map()

/** What lies before what of the lines that have ink. */
function frontsOf(drawing: Drawing, outlined: readonly { item: Line | Shape }[], fronts: Fronts, ends: Ends): InFront {
  const items = outlined.map(({ item }) => item)
  if (saysFronts(drawing)) ends.follow(items.filter((item) => 'path' in item))
  return fronts.of(drawing, items, (id) => ends.of(id))
}

const NONE: readonly Path[] = []
const pathsOf = remembered((region: Region): Path[] => toPaths(region.contours.map((c) => [...c])))

/** The closed paths within which what lies behind is hidden. */
const hiddenPaths = (hidden: Hidden | undefined, outlines: Outlines): readonly Path[] =>
  hidden
    ? [
        ...hidden.loops,
        ...hidden.under.flatMap((line) => {
          const region = outlines.of(line)
          return 'message' in region ? NONE : pathsOf(region)
        }),
      ]
    : NONE
