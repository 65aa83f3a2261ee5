import Flatbush from 'flatbush'
import type { Line } from '../model/model'
import type { Vec } from '../geometry/point'
import { crossingsOf } from '../geometry/crossings'
import { straight } from '../geometry/cubic'
import { arcOfPath } from '../geometry/known'
import { along } from '../geometry/point'
import { reachOf } from '../ink/ends/ends'
import { isShownAt } from '../relations/shown'
import type { EndContact } from '../relations/end-contacts'
import { bluntAmong } from './blunt'
import type { Finding, Proofed } from './finding'
import { rememberedBy } from '../remembered'

/** Where a line would come to that goes straight on from its end, on the middle of a line whose ink is near. */
const meets = rememberedBy(({ at, outward }: EndContact, line: Line, limit: number, ...near: Line[]): Vec | null => {
  let best: { s: number; at: Vec } | null = null
  for (const other of near) {
    if (other === line) continue
    const arc = arcOfPath(other.path)
    const half = (other.weight.size / 2) * Math.max(...other.weight.stops.map((s) => Math.max(s.left, s.right)))
    const most = limit + half
    for (const hit of crossingsOf([straight(at, along(at, outward, most))], arc.cubics)) {
      if (!isShownAt(other, arc.at(hit.b.segment, hit.b.t) / (arc.total || 1))) continue
      const s = hit.a.t * most
      if (!best || s < best.s) best = { s, at: hit.at }
    }
  }
  return best?.at ?? null
})

/** Ends that stop a little short of a line that lies straight ahead, and do not taper: those were meant to meet it. */
export function gaps({ lines, ends, limits, pxPerMm }: Proofed): Finding[] {
  const limit = limits.gap * pxPerMm
  const free = lines.flatMap((line) => bluntAmong(line, ends.of(line.id)).map((c) => ({ line, c })))
  if (!free.length) return []
  const index = new Flatbush(lines.length)
  for (const l of lines) {
    const box = reachOf(l, { reach: 0, overshoot: 0 })
    index.add(box.minX, box.minY, box.maxX, box.maxY)
  }
  index.finish()
  return free.flatMap(({ line, c }): Finding[] => {
    const far = limit + line.weight.size / 2
    const near = index.search(c.at.x - far, c.at.y - far, c.at.x + far, c.at.y + far).map((i) => lines[i]!)
    const to = meets(c, line, limit, ...near)
    return to
      ? [
          {
            key: `gap ${line.id} ${c.end}`,
            kind: 'gap',
            at: c.at,
            items: [line.id],
            mend: { do: 'meet', line: line.id, end: c.end, to },
          },
        ]
      : []
  })
}
