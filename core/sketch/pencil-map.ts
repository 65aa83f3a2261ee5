import type { Sketch } from '../model/model'
import { fromShares, toShares } from './sketch-place'
import type { Vec } from '../geometry/point'
import type { Crests } from './crests'

/** A point is drawn to pencil that is so plain; what lies far off must be so much plainer. */
const PLAIN = 0.3
const FAR = 0.5
/** Pencil counts in full as a way's whose direction is this near to it (cosine), and for nothing from the other on. */
const ALONG = 0.87
const ACROSS = 0.5

/** The pencil's lines where they lie on the page. */
export class PencilMap {
  /** Px of the page for each px of the crests. */
  readonly grain: number
  private readonly turn: number

  /** @param place how the picture lies on the page, turned by degrees about its first corner */
  constructor(
    readonly crests: Crests,
    private readonly place: Pick<Sketch, 'x' | 'y' | 'width' | 'height' | 'angle'>,
  ) {
    this.grain = place.width / crests.width
    this.turn = (place.angle * Math.PI) / 180
  }

  /** From the page to px of the crests; the middle of the first one is at (0.5, 0.5). */
  inCrests(p: Vec): Vec {
    const q = toShares(this.place, p)
    return { x: q.x * this.crests.width, y: q.y * this.crests.height }
  }

  onPage(p: Vec): Vec {
    return fromShares(this.place, { x: p.x / this.crests.width, y: p.y / this.crests.height })
  }

  /** How plainly a pencil line runs through a point of the page, 0..1; 0 beside the picture. */
  strengthAt(p: Vec): number {
    const { width, height, strength } = this.crests
    const q = this.inCrests(p)
    const [x, y] = [q.x - 0.5, q.y - 0.5]
    const [i, j] = [Math.floor(x), Math.floor(y)]
    if (i < 0 || j < 0 || i >= width - 1 || j >= height - 1) return 0
    const [u, v, o] = [x - i, y - j, j * width + i]
    return (
      ((1 - v) * ((1 - u) * strength[o]! + u * strength[o + 1]!) +
        v * ((1 - u) * strength[o + width]! + u * strength[o + width + 1]!)) /
      255
    )
  }

  /** As `strengthAt`, of pencil that runs about the way that is given, of unit length: what crosses it counts for nothing. */
  strengthAlong(p: Vec, { x, y }: Vec): number {
    const s = this.strengthAt(p)
    if (s === 0) return 0
    const { width, height, way } = this.crests
    const q = this.inCrests(p)
    const i =
      Math.min(height - 1, Math.max(0, Math.floor(q.y))) * width + Math.min(width - 1, Math.max(0, Math.floor(q.x)))
    const a = (way[i]! / 256) * Math.PI + this.turn
    return s * Math.min(1, Math.max(0, (Math.abs(Math.cos(a) * x + Math.sin(a) * y) - ACROSS) / (ALONG - ACROSS)))
  }

  /** The crest of a plain pencil line nearest to a point, no farther than `reach` px of the page; null where there is none. */
  crestNear(p: Vec, reach: number): Vec | null {
    const step = this.grain / 2
    const n = Math.ceil(reach / step)
    let best: { at: Vec; worth: number } | null = null
    for (let j = -n; j <= n; j++) {
      for (let i = -n; i <= n; i++) {
        const off = Math.hypot(i, j) * step
        if (off > reach) continue
        const at = { x: p.x + i * step, y: p.y + j * step }
        const s = this.strengthAt(at)
        if (s < PLAIN) continue
        const worth = Math.min(1, s) - FAR * (off / reach) ** 2
        if (!best || worth > best.worth) best = { at, worth }
      }
    }
    return best?.at ?? null
  }
}
