import type { Fill, Hold, Line } from '../model/model'
import { perUsualPx } from '../model/fineness'
import { boxOfPoints } from '../geometry/bounds'
import { pointAt } from '../geometry/cubic'
import { edgeOf, holdOf } from '../ink/regions/edge'
import type { Face } from '../ink/regions/faces'
import { measureOfFace } from '../ink/regions/faces'
import { finderOf } from '../ink/regions/side-finder'
import type { Finding, Proofed } from './finding'

/** Regions larger than this, mm squared, are no slivers, however thin; smaller ones than that no printer and no screen shows. */
const LARGEST = 3
const LEAST = 0.0004

/** Hairs of paper between ink, which nobody meant: narrower on the mean than can be seen as a region. */
export function paperSlivers({ paper, poured, lines, limits, pxPerMm, drawing }: Proofed): Finding[] {
  const filled = new Set(poured.flatMap((p) => p.faces))
  const thin = paper.index.faces.filter((f) => f.box && !filled.has(f) && isThin(f, limits.sliver * pxPerMm, pxPerMm))
  if (!thin.length) return []
  const finder = finderOf(drawing)
  const known = new Map(lines.map((l) => [l.id, l]))
  return thin.flatMap((face): Finding[] => {
    const hold = [...holdOf(edgeOf(face, finder, [], perUsualPx(drawing.page)))]
    const own = known.get(hold[0]?.line ?? '')
    const outer = face.contours[0]!
    const at = pointAt(outer[0]!, 0)
    const key = `sliver ${hold.map((h) => `${h.line} ${h.side} ${Math.round(h.from * 50)}`).join(' ')}`.slice(0, 280)
    return [
      {
        key,
        kind: 'sliver',
        at,
        items: [...new Set(hold.map((h) => h.line))],
        mend: own ? { do: 'pour', fill: closing(key, own, hold, at) } : null,
      },
    ]
  })
}

/** A fill in the ink of a line that closes what it bounds. */
const closing = (key: string, line: Line, hold: Hold[], at: Fill['at']): Fill => ({
  id: `closed ${key}`.slice(0, 80),
  ink: line.ink,
  where: 'region',
  at,
  hold,
  gap: 0,
})

function isThin(face: Face, width: number, pxPerMm: number): boolean {
  const { area, length } = measureOfFace(face)
  const mm = area / (pxPerMm * pxPerMm)
  return mm < LARGEST && mm > LEAST && 2 * area < width * length
}

/** Gaps so fine that the region behind them was meant to close: bridged, there are more regions. */
export function openRegions({ paper, bridged, pxPerMm }: Proofed): Finding[] {
  if (bridged === paper || bridged.index.faces.length <= paper.index.faces.length) return []
  const least = LARGEST * pxPerMm * pxPerMm
  const before = new Set(paper.index.faces)
  const fresh = bridged.index.faces.filter((f) => f.box && !before.has(f) && measureOfFace(f).area > least)
  return bridged.bridges.flatMap((b): Finding[] => {
    const at = pointAt(b.curve, 0.5)
    // A bridge counts where it is a part of the edge of a region that was not there before.
    const isEdge = fresh.some(
      (f) =>
        isNearBox(f, at, pxPerMm) &&
        f.contours[0]!.some(
          (c) =>
            isNearBox({ box: boxOfPoints([c.p0, c.p1, c.p2, c.p3]) }, at, pxPerMm) &&
            [0, 0.25, 0.5, 0.75].some((t) => near(pointAt(c, t), b.curve, pxPerMm)),
        ),
    )
    return isEdge
      ? [
          {
            key: `open ${b.from} ${b.to} ${b.end}`,
            kind: 'open',
            at,
            items: [...new Set([b.from, b.to])],
            mend: { do: 'close', line: b.from, end: b.end, to: b.curve.p3 },
          },
        ]
      : []
  })
}

/** Whether a place lies within a mm of a box. */
const isNearBox = ({ box }: Pick<Face, 'box'>, { x, y }: Fill['at'], mm: number): boolean =>
  !!box && x >= box.minX - mm && x <= box.maxX + mm && y >= box.minY - mm && y <= box.maxY + mm

const near = (p: Fill['at'], curve: Parameters<typeof pointAt>[0], pxPerMm: number): boolean =>
  [0.2, 0.5, 0.8].some((t) => Math.hypot(pointAt(curve, t).x - p.x, pointAt(curve, t).y - p.y) < 0.06 * pxPerMm)
