import Flatbush from 'flatbush'
import { backwards, cutFrom, arcOf } from '../arrangement/loop'
import { areaOfCubics } from '../geometry/area'
import type { Box } from '../geometry/bounds'
import { boxOfCubics } from '../geometry/bounds'
import type { Cubic } from '../geometry/cubic'
import { reverse } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { windingOf } from '../geometry/winding-at'

/** A connected piece of paper: closed contours that go round it from x towards y, the outer one first; open ground has no outer one. */
export interface Face {
  contours: readonly (readonly Cubic[])[]
  /** Of the outer contour; null for open ground, which goes on for ever. */
  box: Box | null
  /** Whether each contour is an island with paper of its own inside. */
  hollow: readonly boolean[]
}

type Contour = readonly Cubic[]

const turned = new WeakMap<Contour, Cubic[]>()

/** A contour of ink travelled the other way, so that it goes round the paper; what it borders on is known again. */
function aroundPaper(contour: Contour): Cubic[] {
  let other = turned.get(contour)
  if (!other) {
    other = contour.map((c) => {
      const arc = arcOf(c)
      return cutFrom(reverse(c), arc.curve === c ? backwards(c) : { curve: arc.curve, t0: arc.t1, t1: arc.t0 })
    }).reverse()
    turned.set(contour, other)
  }
  return other
}

const faces = new WeakMap<Contour, Face>()

/**
 * The faces of paper that united ink leaves, whose contours do not cross and go round the ink: each hole with
 * the islands in it, and at last the open ground. Faces of the same contours are the same objects.
 */
export function facesOf(ink: readonly Contour[]): Face[] {
  const holes: Contour[] = []
  const outers: Contour[] = []
  for (const c of ink) if (c.length) (areaOfCubics(c) < 0 ? holes : outers).push(c)
  const index = holes.length ? new Flatbush(holes.length) : null
  for (const hole of holes) {
    const b = boxOfCubics(hole)
    index!.add(b.minX, b.minY, b.maxX, b.maxY)
  }
  index?.finish()
  const within = new Map<Contour | null, Contour[]>()
  for (const outer of outers) {
    const { x, y } = outer[0]!.p0
    const about = (index?.search(x, y, x, y) ?? []).map((i) => holes[i]!).filter((h) => windingOf(h, { x, y }) !== 0)
    const own = about.sort((a, b) => areaOfCubics(b) - areaOfCubics(a))[0] ?? null
    within.set(own, [...(within.get(own) ?? []), outer])
  }
  const isHollow = hollowness(holes, index)
  const islandsIn = (hole: Contour | null): { contours: Cubic[][]; hollow: boolean[] } => {
    const all = within.get(hole) ?? []
    return { contours: all.map(aroundPaper), hollow: all.map(isHollow) }
  }
  return [...holes.map((hole) => remembered(hole, islandsIn(hole))), { ...islandsIn(null), box: null }]
}

function remembered(hole: Contour, islands: Pick<Face, 'contours' | 'hollow'>): Face {
  const was = faces.get(hole)
  if (was && was.contours.length === islands.contours.length + 1 && islands.contours.every((c, i) => c === was.contours[i + 1] && islands.hollow[i] === was.hollow[i + 1])) return was
  const outer = aroundPaper(hole)
  const face = { contours: [outer, ...islands.contours], hollow: [false, ...islands.hollow], box: boxOfCubics(outer) }
  faces.set(hole, face)
  return face
}

/** Answers whether a contour has holes of ink inside. */
function hollowness(holes: readonly Contour[], index: Flatbush | null): (contour: Contour) => boolean {
  return (contour) => {
    const b = boxOfCubics(contour)
    return (index?.search(b.minX, b.minY, b.maxX, b.maxY) ?? []).some((i) => windingOf(contour, holes[i]![0]!.p0) !== 0)
  }
}

/** As `hollowness`, of the holes that are among the contours of united ink. */
export function hollowAmong(ink: readonly Contour[]): (contour: Contour) => boolean {
  const holes = ink.filter((c) => c.length && areaOfCubics(c) < 0)
  const index = holes.length ? new Flatbush(holes.length) : null
  for (const hole of holes) {
    const b = boxOfCubics(hole)
    index!.add(b.minX, b.minY, b.maxX, b.maxY)
  }
  index?.finish()
  return hollowness(holes, index)
}

/** Signed area of a face, px squared; infinite for open ground. */
export const areaOfFace = ({ contours, box }: Face): number => (box ? contours.reduce((n, c) => n + areaOfCubics(c), 0) : Infinity)

/** Finds faces by place. */
export class FaceIndex {
  private readonly index: Flatbush | null
  private readonly bounded: Face[]

  constructor(readonly faces: readonly Face[]) {
    this.bounded = faces.filter((f) => f.box)
    this.index = this.bounded.length ? new Flatbush(this.bounded.length) : null
    for (const { box } of this.bounded) this.index!.add(box!.minX, box!.minY, box!.maxX, box!.maxY)
    this.index?.finish()
  }

  /** The bounded face about a point; null on ink and on open ground. */
  at(p: Vec): Face | null {
    for (const i of this.index?.search(p.x, p.y, p.x, p.y) ?? []) {
      const { contours } = this.bounded[i]!
      if (contours.reduce((n, c) => n + windingOf(c, p), 0) !== 0) return this.bounded[i]!
    }
    return null
  }

  /** The open ground, if a point lies on it: outside of all ink and of all bounded faces. */
  openAt(p: Vec): Face | null {
    const open = this.faces.find((f) => !f.box)
    return open && open.contours.every((c) => windingOf(c, p) === 0) ? open : null
  }
}
