import Flatbush from 'flatbush'
import type { Drawing, Hold, Line } from '../../model/model'
import { seenLines } from '../../model/queries'
import type { Box } from '../../geometry/bounds'
import { boxOfCubic, emptyBox, grown, isWithin, overlap, uniteBoxes } from '../../geometry/bounds'
import { pointAt } from '../../geometry/cubic'
import { arcOfPath } from '../../geometry/known'
import type { Vec } from '../../geometry/point'
import { LineWidth } from '../../weight/half-widths'
import { remembered } from '../../remembered'

/** Where a place is on the side of a line. */
export interface SidePlace {
  line: string
  side: Hold['side']
  share: number
  /** How far the middle of the ink lies from here, px. */
  middle: number
}

/** A place is on a side of a line when it is no farther from there than this, px, and this share of the line's size. */
const OFF = 0.3
const OFF_SHARE = 0.06

/** Where the sides of a line lie: boxes of its curves, and about all of them. */
interface Reach {
  boxes: Box[]
  box: Box
}

const widthOf = remembered(
  (line: Line): LineWidth =>
    new LineWidth(line.weight, line.finish.align, arcOfPath(line.path).total, line.path.closed),
)

const reachOf = remembered((line: Line): Reach => {
  const by = widthOf(line).widest + OFF + OFF_SHARE * line.weight.size
  const boxes = arcOfPath(line.path).cubics.map((c) => grown(boxOfCubic(c), by))
  return { boxes, box: boxes.reduce(uniteBoxes, emptyBox()) }
})

/** A box about all places that can be found to be on the sides of a line. */
export const boxOfSides = (line: Line): Box => reachOf(line).box

/** Finds on which side of which line a point of an outline is. */
export class SideFinder {
  private readonly index: Flatbush | null

  constructor(private readonly lines: readonly Line[]) {
    this.index = lines.length ? new Flatbush(lines.length) : null
    for (const line of lines) {
      const { box } = reachOf(line)
      this.index!.add(box.minX, box.minY, box.maxX, box.maxY)
    }
    this.index?.finish()
  }

  /** The lines that come near a box, in a lasting order. */
  near(b: Box): Line[] {
    const found = (this.index?.search(b.minX, b.minY, b.maxX, b.maxY) ?? [])
      .sort((i, k) => i - k)
      .map((i) => this.lines[i]!)
    return found.filter((line) => reachOf(line).boxes.some((box) => overlap(box, b)))
  }

  at(p: Vec): SidePlace | null {
    let best: (SidePlace & { off: number }) | null = null
    for (const i of this.index?.search(p.x, p.y, p.x, p.y) ?? []) {
      const line = this.lines[i]!
      const place = placeOn(line, p)
      // Of equally near ones it is always the same, whatever the order in which they are found.
      if (place && (!best || place.off < best.off || (place.off === best.off && line.id < best.line))) best = place
    }
    return best
  }
}

function placeOn(line: Line, p: Vec): (SidePlace & { off: number }) | null {
  const segments = reachOf(line).boxes.flatMap((box, i) => (isWithin(p, box) ? [i] : []))
  if (!segments.length) return null
  const arc = arcOfPath(line.path)
  const hit = arc.nearest(p, segments)
  const tangent = arc.tangent(hit.length)
  if (!tangent || !arc.total) return null
  // Beyond an end lies its cap.
  if (!line.path.closed && (hit.length <= 0 || hit.length >= arc.total)) return null
  const c = pointAt(arc.cubics[hit.segment]!, hit.t)
  const isLeft = (p.x - c.x) * tangent.y - (p.y - c.y) * tangent.x >= 0
  const { left, right } = widthOf(line).at(hit.length)
  const off = Math.abs(hit.distance - (isLeft ? left : right))
  return off > OFF + OFF_SHARE * line.weight.size
    ? null
    : { off, line: line.id, side: isLeft ? 'left' : 'right', share: hit.length / arc.total, middle: (left + right) / 2 }
}

const finderOfLayers = remembered((layers: Drawing['layers']): SideFinder => new SideFinder(seenLines({ layers })))

/** That of the lines of a drawing that are seen; made once for its layers. */
export const finderOf = ({ layers }: Pick<Drawing, 'layers'>): SideFinder => finderOfLayers(layers)

/** A point of the paper beside a side of a line, `off` px from its ink. */
export function besideOf(line: Line, side: Hold['side'], share: number, off: number): Vec | null {
  const arc = arcOfPath(line.path)
  const s = share * arc.total
  const tangent = arc.tangent(s)
  if (!tangent) return null
  const { left, right } = widthOf(line).at(s)
  const c = arc.point(s)
  const k = side === 'left' ? left + off : -(right + off)
  return { x: c.x + tangent.y * k, y: c.y - tangent.x * k }
}
