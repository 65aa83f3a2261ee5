import Flatbush from 'flatbush'
import { backwards, cutFrom, arcOf } from '../../arrangement/loop'
import { areaOfCubics } from '../../geometry/area'
import type { Box } from '../../geometry/bounds'
import { boxOfCubics } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import { reverse } from '../../geometry/cubic'
import { controlLength } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { windingOf } from '../../geometry/winding-at'
import { remembered } from '../../remembered'

/** A connected piece of paper: closed contours that go round it from x towards y, the outer one first; open ground has no outer one. */
export interface Face {
  contours: readonly (readonly Cubic[])[]
  /** Of the outer contour; null for open ground, which goes on for ever. */
  box: Box | null
  /** Whether each contour is an island with paper of its own inside. */
  hollow: readonly boolean[]
}

type Contour = readonly Cubic[]

/** What is known of a contour of ink for as long as it is the same. */
interface Known {
  area: number
  box: Box
  /** Travelled the other way. */
  turned?: Cubic[]
  /** The paper that it goes round. */
  face?: Face
}

const knownOf = remembered((contour: Contour): Known => ({ area: areaOfCubics(contour), box: boxOfCubics(contour) }))

/** A contour of ink travelled the other way, so that it goes round the paper; what it borders on is known again. */
function aroundPaper(contour: Contour): Cubic[] {
  const own = knownOf(contour)
  own.turned ??= contour
    .map((c) => {
      const arc = arcOf(c)
      return cutFrom(reverse(c), arc.curve === c ? backwards(c) : { curve: arc.curve, t0: arc.t1, t1: arc.t0 })
    })
    .reverse()
  return own.turned
}

/** The holes in united ink, found by place. */
class Holes {
  readonly all: Contour[]
  private readonly index: Flatbush | null

  constructor(ink: readonly Contour[]) {
    this.all = ink.filter((c) => c.length && knownOf(c).area < 0)
    this.index = this.all.length ? new Flatbush(this.all.length) : null
    for (const hole of this.all) {
      const { minX, minY, maxX, maxY } = knownOf(hole).box
      this.index!.add(minX, minY, maxX, maxY)
    }
    this.index?.finish()
  }

  /** The smallest hole about a point, if any. */
  about(p: Vec): Contour | null {
    let best: Contour | null = null
    for (const i of this.index?.search(p.x, p.y, p.x, p.y) ?? []) {
      const hole = this.all[i]!
      if ((!best || knownOf(hole).area > knownOf(best).area) && windingOf(hole, p) !== 0) best = hole
    }
    return best
  }

  /** Whether a contour has holes of ink inside. */
  readonly isHollow = (contour: Contour): boolean => {
    const b = knownOf(contour).box
    return (this.index?.search(b.minX, b.minY, b.maxX, b.maxY) ?? []).some(
      (i) => isInside(knownOf(this.all[i]!).box, b) && windingOf(contour, this.all[i]![0]!.p0) !== 0,
    )
  }
}

const isInside = (a: Box, b: Box): boolean =>
  a.minX >= b.minX && a.minY >= b.minY && a.maxX <= b.maxX && a.maxY <= b.maxY

/** The faces of paper that united ink leaves, and whether a contour has holes of that ink inside. */
export interface Ground {
  faces: Face[]
  isHollow: (contour: Contour) => boolean
}

/**
 * The faces of paper that united ink leaves, whose contours do not cross and go round the ink: each hole with
 * the islands in it, and at last the open ground. Faces of the same contours are the same objects.
 */
export function groundOf(ink: readonly Contour[]): Ground {
  const holes = new Holes(ink)
  const within = new Map<Contour | null, Contour[]>()
  for (const outer of ink) {
    if (!outer.length || knownOf(outer).area < 0) continue
    const about = holes.about(outer[0]!.p0)
    const list = within.get(about)
    if (list) list.push(outer)
    else within.set(about, [outer])
  }
  const islandsIn = (hole: Contour | null): Pick<Face, 'contours' | 'hollow'> => {
    const all = within.get(hole)
    return all ? { contours: all.map(aroundPaper), hollow: all.map(holes.isHollow) } : NO_ISLANDS
  }
  return {
    faces: [...holes.all.map((hole) => faceWithin(hole, islandsIn(hole))), { ...islandsIn(null), box: null }],
    isHollow: holes.isHollow,
  }
}

const NO_ISLANDS: Pick<Face, 'contours' | 'hollow'> = { contours: [], hollow: [] }

function faceWithin(hole: Contour, islands: Pick<Face, 'contours' | 'hollow'>): Face {
  const own = knownOf(hole)
  const was = own.face
  if (
    was &&
    was.contours.length === islands.contours.length + 1 &&
    islands.contours.every((c, i) => c === was.contours[i + 1] && islands.hollow[i] === was.hollow[i + 1])
  )
    return was
  return (own.face = {
    contours: [aroundPaper(hole), ...islands.contours],
    hollow: [false, ...islands.hollow],
    box: own.box,
  })
}

/** Signed area of a bounded face, px squared, and about how long its edge is, px; infinite for open ground. */
export const measureOfFace = remembered(({ box, contours }: Face): { area: number; length: number } =>
  box
    ? {
        area: contours.reduce((n, c) => n + areaOfCubics(c), 0),
        length: contours.reduce((n, c) => n + controlLength(c), 0),
      }
    : { area: Infinity, length: Infinity },
)

/** Finds faces by place. */
export class FaceIndex {
  private readonly index: Flatbush | null
  private readonly bounded: Face[]
  /** Open ground, if there is any. */
  readonly open: Face | null

  constructor(readonly faces: readonly Face[]) {
    this.bounded = faces.filter((f) => f.box)
    this.open = faces.find((f) => !f.box) ?? null
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
    return this.open?.contours.every((c) => windingOf(c, p) === 0) ? this.open : null
  }
}
