import { grown, overlap } from '../../geometry/bounds'
import { pointAt } from '../../geometry/cubic'
import { arcOfPath, boxOfPath } from '../../geometry/known'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { lerp } from '../../geometry/point'
import Flatbush from 'flatbush'
import type { Form } from './form'
import { boxOfForm, contoursOf, isIn } from './form'
import { remembered } from '../../remembered'

/** So many places of each curve of an outline are looked at. */
const A_CURVE = 12

/** An outline that lies within another form by less than this, px of the usual page, runs along its edge. */
export const ALONG_EDGE = 0.75

/** Of so many places within both forms the one farthest from their outlines is where they are said to overlap. */
const CANDIDATES = 8

/** Two forms, by their places in a list, whose outlines cross, and a place that lies in both. */
export interface Crossed {
  a: number
  b: number
  at: Vec
}

/** Where forms overlap, kept for as long as their outlines are the same. */
export class Overlaps {
  private readonly known = new WeakMap<Path, WeakMap<Path, Vec | 'none'>>()

  /** @param margin an outline that lies within another form by no more, px, only runs along its edge */
  constructor(private readonly margin: number) {}

  /** The pairs of forms that overlap: one lies in part within the other, and the other in part within it. */
  of(forms: readonly Form[]): Crossed[] {
    return pairsNear(forms).flatMap(([a, b]): Crossed[] => {
      const at = this.between(forms[a]!, forms[b]!)
      return at ? [{ a, b, at }] : []
    })
  }

  /** A place in both of two forms that overlap; null where they do not, or one lies within the other. */
  between(one: Form, other: Form): Vec | null {
    if (!overlap(boxOfForm(one), boxOfForm(other)) || one.lines.some((l) => other.lines.includes(l))) return null
    let known = this.known.get(one.loop)
    if (!known) this.known.set(one.loop, (known = new WeakMap()))
    let at = known.get(other.loop)
    if (!at) known.set(other.loop, (at = overlapAt(one, other, this.margin) ?? 'none'))
    return at === 'none' ? null : at
  }
}

/** Whether places along a form's outline come nearer than so many px to that of another. */
export const comesNear = (form: Form, other: Form, reach: number): boolean =>
  pointsAlong(form.loop).some((p) => arcOfPath(other.loop).nearest(p).distance <= reach)

/** Pairs of forms whose boxes overlap, with so many px about each, by their places in the list, the first before the second. */
export function pairsNear(forms: readonly Form[], about?: readonly number[]): [number, number][] {
  if (forms.length < 2) return []
  const index = new Flatbush(forms.length)
  const boxes = forms.map((form, i) => grown(boxOfForm(form), about?.[i] ?? 0))
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY)
  index.finish()
  return boxes.flatMap(({ minX, minY, maxX, maxY }, a) => {
    const near = index.search(minX, minY, maxX, maxY, (b) => b > a)
    return near.sort((p, q) => p - q).map((b): [number, number] => [a, b])
  })
}

/** Points along an outline. */
const pointsAlong = remembered((loop: Path): Vec[] =>
  contoursOf(loop)[0]!.flatMap((c) => Array.from({ length: A_CURVE }, (_, i) => pointAt(c, (i + 0.5) / A_CURVE))),
)

function overlapAt(one: Form, other: Form, margin: number): Vec | null {
  const within = (a: Form, b: Form): Vec[] =>
    pointsAlong(a.loop).filter((p) => isIn(b, p) && arcOfPath(b.loop).nearest(p).distance > margin)
  const [ofOne, ofOther] = [within(one, other), within(other, one)]
  if (!ofOne.length || !ofOther.length) return null
  const every = (all: readonly Vec[]): Vec[] =>
    Array.from(
      { length: Math.min(CANDIDATES, all.length) },
      (_, i) => all[Math.floor((i * all.length) / CANDIDATES)] ?? all.at(-1)!,
    )
  let best: { p: Vec; room: number } | null = null
  for (const p of every(ofOne)) {
    for (const q of every(ofOther)) {
      const m = lerp(p, q, 0.5)
      if (!isIn(one, m) || !isIn(other, m)) continue
      const room = Math.min(arcOfPath(one.loop).nearest(m).distance, arcOfPath(other.loop).nearest(m).distance)
      if (!best || room > best.room) best = { p: m, room }
    }
  }
  return best?.p ?? ofOne[0]!
}

/** Whether a path lies wholly within a form, but for what runs along its edge. */
export function liesWithin(path: Path, form: Form, perPx: number): boolean {
  const margin = ALONG_EDGE * perPx
  const [a, b] = [boxOfPath(path), grown(boxOfForm(form), margin)]
  if (a.minX < b.minX || a.maxX > b.maxX || a.minY < b.minY || a.maxY > b.maxY) return false
  const arc = arcOfPath(path)
  const points = path.closed ? pointsAlong(path) : Array.from({ length: 13 }, (_, i) => arc.point((arc.total * i) / 12))
  return points.every((p) => isIn(form, p) || arcOfPath(form.loop).nearest(p).distance <= margin)
}
