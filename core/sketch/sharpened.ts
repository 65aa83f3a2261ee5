import { evenlySpaced } from '../fit/steady'
import type { Vec } from '../geometry/point'
import { along, cross, direction, distance, dot, lerp, subtract } from '../geometry/point'
import type { Field } from './grey-image'
import { between } from './pencil'

/** Points one px apart, and which of them are corners. */
export interface Sharpened {
  points: Vec[]
  corners: number[]
}

/** The ways into and out of a corner are looked at from so many scales before it on, up to so many. */
const NEAR = 1.5
const FAR = 5
/** A corner turns by more than this, and its sides by no more than this share of it. */
const TURN = 0.9
const BENT = 0.35
/** At a corner so much of the turn is made within these scales of it. */
const SUDDEN = 0.7
const CLOSE = [0.7, 2.2] as const
/** Corners are so many scales apart, and lie no farther than this from the crest, which cuts them. */
const APART = 3
const CUT = 5
/** As dark as this share of the pencil beside it the pencil is where a corner is. */
const DARK = 0.5

/**
 * A chain along crests with its corners as the pencil has them: a crest that is looked at in a scale is round where the pencil
 * turns, and cuts corners off. Where both sides run straight enough on, and there is pencil where they would meet, they do.
 *
 * @param pencil how dark each px is, 0..1
 */
export function sharpened(chain: readonly Vec[], closed: boolean, pencil: Field, sigma: number): Sharpened {
  const raw = evenlySpaced(chain, 1)
  const points = closed ? raw.slice(0, -1) : raw
  const n = points.length
  const [near, far, apart] = [Math.round(NEAR * sigma), Math.round(FAR * sigma), Math.round(APART * sigma)]
  const at = (i: number): Vec => points[closed ? ((i % n) + n) % n : i]!
  if (n < 2 * far + 1) return { points: raw, corners: [] }
  const way = (i: number, k: number): Vec => direction(subtract(at(k), at(i))) ?? { x: 1, y: 0 }
  const turnOf = (a: Vec, b: Vec): number => Math.abs(Math.atan2(cross(a, b), dot(a, b)))
  const turns = points.map((_, i) =>
    closed || (i >= far && i + far < n) ? turnOf(way(i - far, i - near), way(i + near, i + far)) : 0,
  )
  const found: { i: number; at: Vec }[] = []
  for (let i = 0; i < n; i++) {
    const t = turns[i]!
    if (t < TURN || !isLargest(turns, i, apart, closed)) continue
    const middle = Math.round((near + far) / 2)
    const bent = Math.max(
      turnOf(way(i - far, i - middle), way(i - middle, i - near)),
      turnOf(way(i + near, i + middle), way(i + middle, i + far)),
    )
    const [c, d] = CLOSE.map((s) => Math.round(s * sigma)) as [number, number]
    if (bent > BENT * t || turnOf(way(i - d, i - c), way(i + c, i + d)) < SUDDEN * t) continue
    const [a, b] = [way(i - far, i - near), way(i + near, i + far)]
    const x = meeting(at(i - middle), a, at(i + middle), b)
    if (
      !x ||
      distance(x, at(i)) > CUT * sigma ||
      dot(subtract(x, at(i - middle)), a) < 0 ||
      dot(subtract(x, at(i + middle)), b) > 0
    )
      continue
    const beside = (darkness(pencil, at(i - middle)) + darkness(pencil, at(i + middle))) / 2
    if ([0.6, 0.95].every((s) => darkness(pencil, lerp(at(i), x, s)) >= DARK * beside)) found.push({ i, at: x })
  }
  return found.length ? withCorners(points, found, 2 * near, closed) : { points: raw, corners: [] }
}

function isLargest(all: readonly number[], i: number, reach: number, closed: boolean): boolean {
  const n = all.length
  for (let k = i - reach; k <= i + reach; k++) {
    const v = closed ? all[((k % n) + n) % n]! : (all[k] ?? 0)
    if (k !== i && (v > all[i]! || (v === all[i] && k < i))) return false
  }
  return true
}

/** The darkest px about a point. */
function darkness(pencil: Field, { x, y }: Vec): number {
  let most = 0
  for (const dx of [-1, 0, 1]) for (const dy of [-1, 0, 1]) most = Math.max(most, between(pencil, x + dx, y + dy))
  return most
}

function meeting(p: Vec, a: Vec, q: Vec, b: Vec): Vec | null {
  const turn = cross(a, b)
  return Math.abs(turn) < 0.2 ? null : along(p, a, cross(subtract(q, p), b) / turn)
}

/** Points that lead straight into corners and out of them, in place of those within `reach` of each. A closed chain begins at one. */
function withCorners(
  points: readonly Vec[],
  found: readonly { i: number; at: Vec }[],
  reach: number,
  closed: boolean,
): Sharpened {
  const n = points.length
  const first = found[0]!.i
  const turned = closed ? [...points.slice(first), ...points.slice(0, first)] : points
  const corners = found.map(({ i, at }) => ({ i: closed ? i - first : i, at }))
  if (closed) corners.push({ i: n, at: found[0]!.at })
  const out: Vec[] = []
  const marks: number[] = []
  const straight = (to: Vec): void => {
    const from = out.at(-1)
    if (!from) return void out.push(to)
    const steps = Math.max(1, Math.round(distance(from, to)))
    for (let k = 1; k <= steps; k++) out.push(lerp(from, to, k / steps))
  }
  let done = 0
  for (const { i, at } of corners) {
    const until = Math.max(done, i - reach)
    out.push(...turned.slice(done, until))
    straight(at)
    marks.push(out.length - 1)
    done = Math.min(n, i + reach + 1)
    if (done < n) straight(turned[done]!)
    done++
  }
  out.push(...turned.slice(done))
  return { points: out, corners: marks.filter((m) => m > 0 && m < out.length - 1) }
}
