import { perUsualPx } from '../model/fineness'
import type { Amendment, Drawing, Fill, Layer, Line, LinesLayer } from '../model/model'
import { linesOf, seenLines } from '../model/queries'
import { outsidesOf } from '../relations/outside'
import { remembered, rememberedBy } from '../remembered'
import { litLine, unlitWeight } from '../weight/light'
import type { Joined } from './across-axis'
import { acrossAxis } from './across-axis'
import { imageOf } from './image-of-line'
import type { Image, Rule } from './images'
import { imagesOf, rulesOf } from './images'
import { originOf } from '../model/image-ids'
import type { Standing } from './placed'
import { amendmentThere, fillThere, inPlace, placedIn, placedOn } from './placed'

/** An end that lies so near to an axis lies on it, px of the usual page. */
const ON_AXIS = 3
export const reachOfAxis = (page: Drawing['page']): number => ON_AXIS * perUsualPx(page)

/**
 * A drawing with all that its rules for mirroring and repeating make of it: images of lines above these in the stack, lines that
 * end on an axis joined across it, and what was decided of them, poured into them and trimmed off them once more. The drawing
 * itself where it has no such rules; layers and lines to which nothing happens are the same objects.
 */
export const withCopies = remembered((drawing: Drawing): Drawing => {
  const whole = rulesOf(drawing).reduce(withRule, drawing)
  if (whole === drawing) return drawing
  // What they make is made: nobody is to do it again.
  const amendments = whole.amendments?.filter((a) => a.kind !== 'mirror' && a.kind !== 'repeat')
  return underLight({ ...whole, ...(amendments && { amendments }) }, drawing)
})

/** A drawing with what one of its rules makes. */
export function withRule(drawing: Drawing, rule: Rule): Drawing {
  const images = imagesOf(rule)
  if (!images.length || !rule.lines.length) return drawing
  const reach = reachOfAxis(drawing.page)
  const layers = drawing.layers.map((l) => (l.kind === 'lines' ? layerWith(l, rule, reach) : l))
  if (layers.every((l, i) => l === drawing.layers[i])) return drawing
  const { own, others } = standings(drawing, rule, images, reach)
  const { amendments, fills } = drawing
  return {
    ...drawing,
    layers: layers as Layer[],
    ...(amendments && { amendments: amendments.flatMap((a) => amendmentsOf(a, own, others)) }),
    ...(fills && { fills: fills.flatMap((f) => fillsOf(f, own, others)) }),
  }
}

const namedBy = remembered((rule: Rule): ReadonlySet<string> => new Set(rule.lines))
const othersOf = remembered((rule: Rule): ReadonlySet<string> => new Set(rule.kind === 'mirror' ? rule.otherwise : []))
const imagesKept = remembered(imagesOf)

/** What a line is joined to by a rule; null where it stands by itself. */
export const joinedBy = (line: Line, rule: Rule, image: Image, reach: number): Joined | null =>
  rule.kind === 'mirror' ? acrossAxis(line, image, othersOf(rule).has(originOf(line.id)), reach) : null

/** What stands on the page for a line: it, or what it is joined to, and its images above it. */
export function standingFor(line: Line, rule: Rule, reach: number): Line[] {
  const [first] = imagesKept(rule)
  if (!first || !namedBy(rule).has(originOf(line.id))) return [line]
  const joined = joinedBy(line, rule, first, reach)
  return joined ? [joined.line] : [line, ...imagesKept(rule).map((image) => imageOf(line, image))]
}

/** All that stands on the page for a line by some rules, px within which an end lies on an axis. */
export const allStandingFor = (line: Line, rules: readonly Rule[], reach: number): Line[] =>
  rules.reduce((lines, rule) => lines.flatMap((l) => standingFor(l, rule, reach)), [line])

/** The images of a drawing's visible lines, each by itself: what others of its lines meet, cross and are snipped by. */
export const imagesIn = remembered((drawing: Drawing): readonly Line[] => {
  const rules = rulesOf(drawing)
  if (!rules.length) return []
  return seenLines(drawing).flatMap((line) =>
    rules
      .reduce<Line[]>(
        (all, rule) =>
          namedBy(rule).has(line.id)
            ? all.flatMap((l) => [l, ...imagesKept(rule).map((image) => imageOf(l, image))])
            : all,
        [line],
      )
      .slice(1),
  )
})

const layerWith = rememberedBy((layer: LinesLayer, rule: Rule, reach: number): LinesLayer => {
  const named = namedBy(rule)
  if (!layer.items.some((l) => named.has(originOf(l.id)))) return layer
  return { ...layer, items: layer.items.flatMap((l) => standingFor(l, rule, reach)) }
})

/** Where lines stand: they themselves, as far as they are other than they were drawn, and in each image. */
function standings(
  { layers }: Drawing,
  rule: Rule,
  images: readonly Image[],
  reach: number,
): { own: Standing; others: Standing[] } {
  const named = namedBy(rule)
  const joined = new Map<string, Joined>()
  const known = new Set<string>()
  for (const layer of layers)
    if (layer.kind === 'lines')
      for (const line of layer.items) {
        known.add(line.id)
        if (!named.has(originOf(line.id))) continue
        const with_ = joinedBy(line, rule, images[0]!, reach)
        if (with_) joined.set(line.id, with_)
      }
  const at = (id: string, image: Image | null) => {
    const with_ = joined.get(id)
    if (with_) return placedOn(with_, !image)
    if (!known.has(id)) return null
    return image && named.has(originOf(id)) ? placedIn(id, image) : inPlace(id)
  }
  return {
    own: { of: (id) => at(id, null), image: null },
    others: images.map((image) => ({ of: (id) => at(id, image), image })),
  }
}

/** Whether places on lines are others where they stand: of those that are joined. What is not, stays the same object. */
const isMoved = (lines: readonly string[], { of }: Standing): boolean =>
  lines.some((id) => {
    const p = of(id)
    return p !== null && (p.at(0) !== 0 || p.at(1) !== 1)
  })

/** Whether something that speaks of lines is another thing in an image. */
const differs = (lines: readonly string[], { of }: Standing): boolean =>
  lines.some((id) => {
    const p = of(id)
    return p !== null && (p.id !== id || p.isReversed)
  })

const linesIn = (a: Amendment): readonly string[] => {
  switch (a.kind) {
    case 'trim':
    case 'fineness':
      return [a.line]
    case 'corner':
      return a.ends.map((e) => e.line)
    case 'front':
      return [...a.front, ...a.back]
    case 'cast':
      return a.front
    case 'bridge':
      return a.lines
    case 'retouch':
      return a.by ? [a.by.line] : []
    default:
      return []
  }
}

function amendmentsOf(a: Amendment, own: Standing, others: readonly Standing[]): Amendment[] {
  const lines = linesIn(a)
  if (!lines.length) return [a]
  return [
    isMoved(lines, own) ? (amendmentThere(a, own) ?? a) : a,
    ...others.flatMap((o) => (differs(lines, o) ? (amendmentThere(a, o) ?? []) : [])),
  ]
}

const fillsOf = (fill: Fill, own: Standing, others: readonly Standing[]): Fill[] => {
  const lines = fill.hold.map((h) => h.line)
  return [
    isMoved(lines, own) ? fillThere(fill, own) : fill,
    ...others.flatMap((o) => (differs(lines, o) ? [fillThere(fill, o)] : [])),
  ]
}

/** What was made of lines under a light has the weight that it gives them where they stand. */
function underLight(drawing: Drawing, drawn: Drawing): Drawing {
  const rule = drawing.settings.light
  if (!rule) return drawing
  const were = new Set(linesOf(drawn))
  const lines = linesOf(drawing)
  const isConcerned = (l: Line): boolean => !!l.weight.unlit && !l.weight.pinned && !were.has(l)
  if (!lines.some(isConcerned)) return drawing
  const outsides = outsidesOf(lines)
  const lit = (l: Line): Line => litLine({ ...l, weight: unlitWeight(l.weight) }, outsides.get(l.id) ?? null, rule)
  return {
    ...drawing,
    layers: drawing.layers.map((l) =>
      l.kind === 'lines' && l.items.some(isConcerned)
        ? { ...l, items: l.items.map((i) => (isConcerned(i) ? lit(i) : i)) }
        : l,
    ),
  }
}
