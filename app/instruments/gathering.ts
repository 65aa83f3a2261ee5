import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { boxOfPoints, overlap } from '#core/geometry/bounds'
import { flatten } from '#core/geometry/cubic'
import { arcOfPath, boxOfPath } from '#core/geometry/known'
import type { Mark } from '~/canvas/marks'
import type { Gather } from './gather'
import type { Hand } from './instrument'

/** How finely a line is looked at, px. */
const FINE = 0.5

/** A drag over paper that chooses what lies in its way. */
export class Gathering {
  private readonly way: Vec[]

  constructor(
    private readonly by: Gather,
    start: Vec,
    readonly adding: boolean,
  ) {
    this.way = [start, start]
  }

  move(hand: Hand): void {
    if (this.by === 'box') this.way[1] = hand.at
    else this.way.push(...hand.samples.map((s) => s.at))
  }

  /** Corners of the region, or the way of the hand. */
  private outline(): Vec[] {
    if (this.by !== 'box') return this.way
    const [a, b] = [this.way[0]!, this.way[1]!]
    return [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }]
  }

  /** Whether a point lies in the region; touching has none. */
  holds(p: Vec): boolean {
    if (this.by === 'touch') return false
    return windingOf(this.outline(), p) !== 0
  }

  /** Lines with any part in a box, all of them in a lasso, or that the drag goes over. */
  linesAmong(lines: readonly Line[]): Line[] {
    const box = boxOfPoints(this.outline())
    return lines.filter((l) => overlap(box, boxOfPath(l.path)) && this.takes(l.path))
  }

  private takes(path: Path): boolean {
    const points = arcOfPath(path).cubics.flatMap((c, i) => flatten(c, FINE).slice(i ? 1 : 0))
    if (!points.length) points.push(path.nodes[0]!.at)
    if (this.by === 'lasso') return points.every((p) => this.holds(p))
    if (this.by === 'box' && points.some((p) => this.holds(p))) return true
    const outline = this.by === 'box' ? [...this.outline(), this.way[0]!] : this.way
    return crosses(outline, points)
  }

  marks(): Mark[] {
    if (this.by === 'box') return [{ kind: 'box', from: this.way[0]!, to: this.way[1]! }]
    const nodes = this.way.map((at) => ({ at, in: null, out: null, joint: 'corner' as const }))
    return [{ kind: 'paths', paths: [{ nodes, closed: this.by === 'lasso' }], tone: 'next' }]
  }
}

/** How often a polygon winds about a point. */
function windingOf(polygon: readonly Vec[], p: Vec): number {
  let winding = 0
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!
    if (a.y <= p.y === b.y <= p.y) return
    if (a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x) > p.x) winding += b.y > a.y ? 1 : -1
  })
  return winding
}

function crosses(p: readonly Vec[], q: readonly Vec[]): boolean {
  const side = (a: Vec, b: Vec, c: Vec): number => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)
  for (let i = 0; i + 1 < p.length; i++) {
    for (let k = 0; k + 1 < q.length; k++) {
      const [a, b, c, d] = [p[i]!, p[i + 1]!, q[k]!, q[k + 1]!]
      if (
        side(a, b, c) * side(a, b, d) <= 0 &&
        side(c, d, a) * side(c, d, b) <= 0 &&
        overlap(boxOfPoints([a, b]), boxOfPoints([c, d]))
      )
        return true
    }
  }
  return false
}
