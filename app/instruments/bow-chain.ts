import type { Path, PathNode } from '#core/geometry/path'
import type { Bend } from '#core/geometry/bow'
import { bowedPath } from '#core/geometry/bow'
import { arcOfPath } from '#core/geometry/known'
import { add, direction, distance, lerp, scale, subtract } from '#core/geometry/point'
import type { Vec } from '#core/geometry/point'
import type { GoingOn } from './going-on'
import { inOrder } from './going-on'

/** What of a chain is its own: it can be put aside and taken up again. */
export interface Chain {
  points: readonly Vec[]
  /** How far each chord's middle is pulled. */
  pulls: readonly Vec[]
  /** Whether the joint at each point is smooth. */
  smooth: readonly boolean[]
  /** The last chord leads back to the first point. */
  closed: boolean
  /** The line whose end mark the first chord began on. */
  goingOn: GoingOn | null
}

/** Chords that follow each other, each bowed, as they are laid. */
export class BowChain implements Chain {
  points: Vec[] = []
  pulls: Vec[] = []
  smooth: boolean[] = []
  closed = false
  goingOn: GoingOn | null = null

  get last(): number {
    return this.points.length - 1
  }

  /** The place of the point at which a chord ends. */
  next(index: number): number {
    return (index + 1) % this.points.length
  }

  begin(at: Vec, goingOn: GoingOn | null): void {
    this.points = [at]
    this.smooth = [false]
    this.goingOn = goingOn
  }

  /** Adds a chord from the last point. */
  addChord(to: Vec, smooth: boolean): void {
    this.smooth[this.last] = smooth && (this.pulls.length > 0 || !!this.goingOn)
    this.points.push(to)
    this.pulls.push({ x: 0, y: 0 })
    this.smooth.push(false)
  }

  /** The chord that was laid last is several, along points between its ends. */
  divideLast(points: readonly Vec[], pulls: readonly Vec[]): void {
    const { last } = this
    const end = this.points[last]!
    this.points.splice(last, 1, ...points.slice(1, -1), end)
    this.pulls.splice(last - 1, 1, ...pulls)
    this.smooth.splice(last, 1, ...points.slice(1, -1).map(() => true), false)
  }

  /** Where a chord under the hand may end to close the chain; null where it is too short for that. */
  get closesAt(): Vec | null {
    if (this.closed || this.pulls.length < 2) return null
    if (!this.goingOn) return this.points[0]!
    const { line, end } = this.goingOn
    return inOrder(line.path.nodes, end)[0]!.at
  }

  /** The last chord ends where the chain began. */
  close(smooth: boolean): void {
    this.closed = true
    if (this.goingOn) return
    this.points.pop()
    this.smooth.pop()
    this.smooth[0] = smooth
  }

  /** Takes the last chord back. */
  takeBack(): void {
    if (!this.closed || this.goingOn) {
      this.points.pop()
      this.smooth.pop()
    }
    this.closed = false
    this.pulls.pop()
    if (this.pulls.length) this.smooth[this.last] = false
    else this.clear()
  }

  /** Takes a joint out: the chords on both its sides become one through where it was. */
  takeOut(index: number): void {
    if (index === this.last && (!this.closed || this.goingOn)) return this.takeBack()
    if (index === 0 && !this.closed) {
      if (this.goingOn || this.pulls.length < 2) return
      this.points.shift()
      this.pulls.shift()
      this.smooth.shift()
      this.smooth[0] = false
      return
    }
    if (this.pulls.length < 3 && this.closed) return
    const before = (index + this.pulls.length - 1) % this.pulls.length
    const [from, to] = [this.points[before]!, this.points[this.next(index)]!]
    this.pulls[before] = subtract(this.points[index]!, lerp(from, to, 0.5))
    this.points.splice(index, 1)
    this.smooth.splice(index, 1)
    this.pulls.splice(index, 1)
  }

  /** Pulls the middle of a chord by as much; straight across it, if asked. */
  pull(index: number, pull: Vec, across: boolean): void {
    const chord = subtract(this.points[this.next(index)]!, this.points[index]!)
    const l = Math.hypot(chord.x, chord.y)
    if (!across || !(l > 0)) this.pulls[index] = pull
    else {
      const by = (chord.x * pull.y - chord.y * pull.x) / l
      this.pulls[index] = { x: (-chord.y / l) * by, y: (chord.x / l) * by }
    }
  }

  middleOf(index: number): Vec {
    return lerp(this.points[index]!, this.points[this.next(index)]!, 0.5)
  }

  /** The bow nearest to a point: which, how far off it lies, and where along it, 0..1. */
  nearest(at: Vec, bend: Bend): { index: number; off: number; share: number } | null {
    const path = this.path(bend)
    if (!path) return null
    const nodes = this.closed && !this.goingOn ? [...path.nodes, path.nodes[0]!] : path.nodes
    let best: { index: number; off: number; share: number } | null = null
    for (const index of this.pulls.keys()) {
      const a = nodes.findIndex((n) => n.at === this.points[index])
      const b = nodes.findIndex((n, i) => i > a && n.at === this.points[this.next(index)])
      const arc = arcOfPath({ nodes: nodes.slice(a, b + 1), closed: false })
      const near = arc.nearest(at)
      if (!best || near.distance < best.off) best = { index, off: near.distance, share: near.length / (arc.total || 1) }
    }
    return best
  }

  clear(): void {
    this.points = []
    this.pulls = []
    this.smooth = []
    this.closed = false
    this.goingOn = null
  }

  /** What is laid, to be taken up again; null while there is nothing. */
  copy(): Chain | null {
    if (!this.pulls.length) return null
    const { points, pulls, smooth, closed, goingOn } = this
    return { points: [...points], pulls: [...pulls], smooth: [...smooth], closed, goingOn }
  }

  takeUp({ points, pulls, smooth, closed, goingOn }: Chain): void {
    Object.assign(this, { points: [...points], pulls: [...pulls], smooth: [...smooth], closed, goingOn })
  }

  /** The bows alone. */
  path(bend: Bend): Path | null {
    if (!this.pulls.length) return null
    const { points, pulls, goingOn } = this
    const smooth = goingOn ? [false, ...this.smooth.slice(1)] : this.smooth
    return bowedPath(points, pulls, smooth, bend, this.closed && !goingOn)
  }

  /** The path of the line that they make, with the line that they go on with: that one keeps its form. */
  whole(bows: Path): Path {
    if (!this.goingOn) return bows
    const { line, end } = this.goingOn
    const was = inOrder(line.path.nodes, end)
    const nodes = [
      ...was.slice(0, -1),
      jointOf(was[was.length - 1]!, bows.nodes[0]!, this.smooth[0]!),
      ...bows.nodes.slice(1),
    ]
    if (!this.closed) return { nodes: inOrder(nodes, end), closed: false }
    const back = nodes.pop()!
    nodes[0] = { ...nodes[0]!, in: back.in }
    return { nodes: inOrder(nodes, end), closed: true }
  }
}

/** The joint at which bows go on with a line: smooth ones leave as it arrives. */
function jointOf(was: PathNode, bow: PathNode, smooth: boolean): PathNode {
  const way = was.in && direction(subtract(was.at, was.in))
  if (!smooth || !way || !bow.out) return { ...was, out: bow.out, joint: 'corner' }
  return { ...was, out: add(was.at, scale(way, distance(was.at, bow.out))), joint: 'smooth' }
}
