import type { Path } from '../geometry/path'
import { InputError } from '../errors'
import { fitSteadied } from '../fit/fit-trace'
import { steadied } from '../fit/steady'
import { mapPath, pathOfCubics } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { polylineLength } from '../geometry/polyline'
import { atOnce } from '../turns'
import { BESIDE, besideEachOther } from './bundles'
import type { Chain } from './chains'
import { continued } from './chains'
import { consolidated } from './consolidated'
import type { Field, GreyImage } from './grey-image'
import { checkImage, reduced } from './grey-image'
import { withoutHooks } from './hooks'
import { withoutPassing } from './passing-ends'
import { pencilOf } from './pencil'
import type { Ridges } from './ridges'
import { ridgesOf } from './ridges'
import { meetingEnds } from './meeting-ends'
import { sharpened } from './sharpened'
import { graphOf } from './skeleton-graph'
import { smoothed } from './gaussian'
import type { Thickness } from './thickness'
import { thicknessAlong } from './thickness'
import { thin } from './thinning'
import { straightThrough } from './straight-through'
import { withoutTwins } from './twins'

export interface ProposeOptions {
  /** How far apart strokes may lie that are one line, px of a picture of 1,440 px; as the picture itself has it, place by place, when absent. */
  merge?: number
  /** How faint a line may be, 0..1: the more, the more is proposed; 0.5 when absent. */
  faint?: number
  /** Px of the longer side of the picture that this one is a part of, so that lengths are meant alike; its own when absent. */
  whole?: number
  /** Lines shorter than this are left out, px of a picture of 1,440 px; 14 when absent. */
  shortest?: number
}

/** A line found in a sketch. */
export interface Proposal {
  /** Image px, y down. */
  path: Path
  /** 0..1: how plainly it is drawn, and how long it is. */
  confidence: number
  /** How thick the pencil is along it, px of the picture. */
  thickness: Thickness
}

/** Pictures are looked at in this size, px of the longer side; lengths here are meant in a picture of the other. */
const SIZE = 1440
const USUAL = 1440
/** A ridge begins where it is so strong, and goes on as far as it is half that; at full faintness a quarter of it. */
const STRONG = 0.095
const GOES_ON = 0.4
/** Branches shorter than so many scales are bumps of the skeleton. */
const SPUR = 2.6
/** And so many widths of their bundle: its strokes end one after the other. */
const SPUR_WIDTHS = 1.4
/** An end's way is looked at so many scales back; gaps of up to so many are bridged. */
const BACK = 3.2
const GAP = 5
/** What lies within so much of the picture's border is the sheet's own edge, px of a picture of 1,440 px, where so much of a line does. */
const BORDER = 12
const ALONG_BORDER = 0.8
/** The fit may lie so far from the crest, px of the picture as it is looked at. */
const TOLERANCE = 0.8
/** The way between corners is steadied over so many scales. */
const STEADY = 1.6
/** Ends come to rest on a line within so many scales. */
const MEETS = 2.2

/**
 * Lines along the pencil of a sketch: centrelines of bundles of strokes, from end to end and through junctions, few
 * nodes, corners as corners; broken lines are bridged, paper and shadow evened out, what is dark in the large left out.
 * After C. Steger (1998) for the crests, T. Y. Zhang and C. Y. Suen (1984) for what hangs together, and G. Noris et al.,
 * Topology-driven vectorization of clean line drawings (2013), for going on through junctions.
 *
 * @throws InputError for a picture or an option that is impossible
 */
export const proposeLines = (image: GreyImage, options: ProposeOptions = {}): Proposal[] =>
  atOnce(findLines(image, options))

/** As `proposeLines`, telling the share 0..1 that is done. */
export function* findLines(
  image: GreyImage,
  { merge, faint = 0.5, shortest = 14, whole = Math.max(image.width, image.height) }: ProposeOptions = {},
): Generator<number, Proposal[]> {
  checkImage(image)
  for (const [name, value] of Object.entries({ merge: merge ?? 0, faint, shortest, whole }))
    if (!(value >= 0) || !Number.isFinite(value))
      throw new InputError(name, `"${name}" must be a number, 0 or more, not ${value}.`)
  if (image.width < 8 || image.height < 8) return []
  const longest = Math.max(image.width, image.height)
  const { field, scale } = reduced(image, SIZE * Math.min(1, longest / whole))
  // Small pictures are looked at as they are; their strokes are as fine as the picture is small.
  const size = Math.min(SIZE, Math.max(whole, longest)) / USUAL
  yield 0.1
  const pencil = pencilOf(field)
  yield 0.25
  const strong = STRONG * 4 ** (0.5 - Math.min(1, faint))
  const sigma = Math.max(1, (merge ?? USUAL_SIGMA) * size)
  const usual = ridgesAt(pencil, sigma)
  const { ridges, widths } =
    merge === undefined ? searched(pencil, usual, { size, strong, sigma }) : { ridges: usual, widths: null }
  yield 0.6
  const mask = crested(ridges, strong, GOES_ON * strong)
  thin(mask, field.width, field.height)
  withoutSpurs(mask, field.width, (p) => SPUR * sigma + SPUR_WIDTHS * (widths?.[p] ?? 0))
  thin(mask, field.width, field.height)
  yield 0.75
  const joined = continued(chainsOf(mask, ridges, field.width, 2 * sigma), { reach: BACK * sigma, gap: GAP * sigma })
  const kept = widths
    ? withoutHooks(joined, ({ x, y }) => widths[Math.round(y) * field.width + Math.round(x)] ?? 0)
    : joined
  const beside = Math.max(BESIDE * size, 3 * sigma)
  const chains = straightThrough(
    withoutPassing(withoutTwins(kept, { beside, meets: MEETS * sigma }), beside),
    pencil,
    sigma,
  )
  yield 0.85
  const out: Proposal[] = []
  for (const [i, chain] of chains.entries()) {
    if (i % 16 === 15) yield 0.85 + (0.15 * i) / chains.length
    const length = polylineLength(chain.points)
    if (length < shortest * size || (longest === whole && isBorder(chain.points, field, BORDER * size))) continue
    const path = fitted(chain, pencil, scale, sigma)
    const { mean, stops } = thicknessAlong(chain.points, chain.closed, pencil, 2 * sigma)
    const plain =
      chain.points.reduce((n, p) => n + (ridges.strength[Math.round(p.y) * field.width + Math.round(p.x)] ?? 0), 0) /
      chain.points.length
    out.push({
      path,
      thickness: { mean: mean * scale, stops },
      confidence: Math.min(1, plain / (2 * STRONG)) * (0.5 + 0.5 * Math.min(1, length / (14 * sigma))),
    })
  }
  const met = meetingEnds(
    out.map((p) => p.path),
    MEETS * sigma * scale,
  )
  return out.map((p, i) => ({ ...p, path: met[i]! })).sort((a, b) => b.confidence - a.confidence)
}

const ridgesAt = (pencil: Field, sigma: number): Ridges => ridgesOf(smoothed(pencil, Math.max(0.5, sigma / 3)), sigma)

/** The scale at which lines are looked for, px of a picture of 1,440 px. */
const USUAL_SIGMA = 3.6
/** Where that leaves more of the crests than this side by side, several strokes search for one line. */
const SEARCHED = 0.17

/**
 * Ridges, and how wide the bundles of strokes are that they stand for. Where crests lie side by side, each place has the
 * ridges of its strokes drawn together instead.
 *
 * @param sigma the scale of the ridges, px
 */
function searched(
  pencil: Field,
  ridges: Ridges,
  { size, strong, sigma }: { size: number; strong: number; sigma: number },
): { ridges: Ridges; widths: Float32Array | null } {
  const beside = besideEachOther(ridges, thinned(crested(ridges, strong, GOES_ON * strong), pencil), size)
  if (beside.share < SEARCHED) return { ridges, widths: null }
  const { middles, widths } = consolidated(pencil, size)
  // A line's middles, a px wide, are as strong as they are dark once they are spread by the scale.
  const gain = Math.sqrt(2 * Math.PI) * sigma
  const together = ridgesOf({ ...middles, values: middles.values.map((v) => v * gain) }, sigma)
  for (let i = 0; i < widths.length; i++) {
    if (beside.about(i % pencil.width, Math.floor(i / pencil.width)) < SEARCHED / 4) {
      widths[i] = 0
      continue
    }
    for (const field of ['strength', 'dx', 'dy', 'nx', 'ny'] as const) ridges[field][i] = together[field][i]!
  }
  return { ridges, widths }
}

/** Whether points run along the border of a picture: the edge of the sheet, or what lay beneath it. */
const isBorder = (points: readonly Vec[], { width, height }: Field, within: number): boolean =>
  points.filter(({ x, y }) => Math.min(x, y, width - 1 - x, height - 1 - y) < within).length >
  ALONG_BORDER * points.length

/** A mask made as thin as a px. */
function thinned(mask: Uint8Array, { width, height }: Field): Uint8Array {
  thin(mask, width, height)
  return mask
}

/** Pixels on crests: strong ones, and weaker ones that hang together with them. */
function crested({ width, height, strength }: Ridges, strong: number, weak: number): Uint8Array {
  const mask = new Uint8Array(width * height)
  const open: number[] = []
  for (let i = 0; i < strength.length; i++) {
    if (strength[i]! < strong) continue
    mask[i] = 1
    open.push(i)
  }
  for (let i = open.pop(); i !== undefined; i = open.pop()) {
    const x = i % width
    for (const d of [-width - 1, -width, -width + 1, -1, 1, width - 1, width, width + 1]) {
      const k = i + d
      if (k < 0 || k >= mask.length || mask[k] || strength[k]! < weak || Math.abs((k % width) - x) > 1) continue
      mask[k] = 1
      open.push(k)
    }
  }
  return mask
}

/** Takes branches off that end in the open after no more px than `longest` says for their middle. */
function withoutSpurs(mask: Uint8Array, width: number, longest: (pixel: number) => number): void {
  const { nodes, ways } = graphOf(mask, width)
  const degree = new Map<number, number>()
  for (const w of ways) for (const n of [w.from, w.to]) degree.set(n, (degree.get(n) ?? 0) + 1)
  for (const { pixels, from, to } of ways) {
    if (from < 0 || pixels.length > longest(pixels[pixels.length >> 1]!)) continue
    const [loose, held] = degree.get(from) === 1 ? [from, to] : degree.get(to) === 1 ? [to, from] : [-1, -1]
    if (loose < 0 || (degree.get(held) ?? 0) < 3) continue
    const junction = new Set(nodes[held])
    for (const p of pixels) if (!junction.has(p)) mask[p] = 0
  }
}

/** The ways of a skeleton with their points on the crests; junctions so near to each other that a stroke's width made two of one are one. */
function chainsOf(mask: Uint8Array, ridges: Ridges, width: number, near: number): Chain[] {
  const { nodes, ways } = graphOf(mask, width)
  const group = nodes.map((_, i) => i)
  const root = (i: number): number => (group[i] === i ? i : (group[i] = root(group[i]!)))
  const degree = new Map<number, number>()
  for (const w of ways) for (const n of [w.from, w.to]) degree.set(n, (degree.get(n) ?? 0) + 1)
  const isLink = ({ pixels, from, to }: (typeof ways)[number]): boolean =>
    from >= 0 && from !== to && pixels.length <= near && degree.get(from)! > 2 && degree.get(to)! > 2
  for (const w of ways) if (isLink(w)) group[root(w.from)] = root(w.to)
  const centres = new Map<number, { x: number; y: number; n: number }>()
  nodes.forEach((pixels, i) => {
    const c = centres.get(root(i)) ?? { x: 0, y: 0, n: 0 }
    for (const p of pixels) Object.assign(c, { x: c.x + (p % width), y: c.y + Math.floor(p / width), n: c.n + 1 })
    centres.set(root(i), c)
  })
  const centre = (i: number): Vec => {
    const { x, y, n } = centres.get(root(i))!
    return { x: x / n, y: y / n }
  }
  const crest = (p: number): Vec => ({ x: (p % width) + ridges.dx[p]!, y: Math.floor(p / width) + ridges.dy[p]! })
  return ways.flatMap((w): Chain[] => {
    if (isLink(w)) return []
    const points = w.pixels.map(crest)
    if (w.from < 0) return [{ points, closed: true, from: -1, to: -1 }]
    // About a junction the crest swerves: the way leads straight to its middle.
    const isJunction = (n: number): boolean => degree.get(n)! > 2
    const cut = (n: number, all: Vec[]): Vec[] =>
      isJunction(n) ? [centre(n), ...all.filter((p) => distance(p, centre(n)) > near / 2)] : all
    const from = cut(w.from, points)
    const both = cut(w.to, from.toReversed()).toReversed()
    // Where only two ways come to a step of the skeleton they are one.
    const nameOf = (n: number): number => (degree.get(n)! > 1 ? root(n) : -1 - n)
    return both.length > 1 ? [{ points: both, closed: false, from: nameOf(w.from), to: nameOf(w.to) }] : []
  })
}

/** A chain as a path of few nodes, px of the picture; corners stay, and what lies between them is smooth. */
function fitted({ points: chain, closed }: Chain, pencil: Field, scale: number, sigma: number): Path {
  const { points, corners } = sharpened(chain, closed, pencil, sigma)
  const cuts = [0, ...corners, points.length - 1]
  const cubics = cuts
    .slice(1)
    .flatMap((to, i) =>
      fitSteadied(steadied(points.slice(cuts[i], to + 1), STEADY * sigma), { tolerance: TOLERANCE, grain: 1 }),
    )
  const path = mapPath(pathOfCubics(cubics, closed, 0.05), ({ x, y }) => ({
    x: (x + 0.5) * scale,
    y: (y + 0.5) * scale,
  }))
  if (!closed || path.closed || path.nodes.length < 3) return path
  const [first, last] = [path.nodes[0]!, path.nodes[path.nodes.length - 1]!]
  return { closed: true, nodes: [{ ...first, in: last.in, joint: 'smooth' }, ...path.nodes.slice(1, -1)] }
}
