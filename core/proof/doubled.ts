import Flatbush from 'flatbush'
import type { Line } from '../drawing/model'
import { arcOfPath, boxOfPath } from '../geometry/known'
import type { Finding, Proofed } from './finding'

/** Lines lie over each other when no place of the one is farther from the other than this share of its size. */
const NEAR = 0.25
const PLACES = 9

/** Lines that lie on another one all along, as a stroke that was laid twice: the upper one of each two. */
export function doubledLines({ lines }: Proofed): Finding[] {
  if (!lines.length) return []
  const index = new Flatbush(lines.length)
  for (const { path } of lines) {
    const b = boxOfPath(path)
    index.add(b.minX, b.minY, b.maxX, b.maxY)
  }
  index.finish()
  return lines.flatMap((line, i): Finding[] => {
    const box = boxOfPath(line.path)
    const near = NEAR * line.weight.size
    const alike = (k: number): boolean => {
      const b = boxOfPath(lines[k]!.path)
      return Math.abs(b.minX - box.minX) <= near && Math.abs(b.minY - box.minY) <= near && Math.abs(b.maxX - box.maxX) <= near && Math.abs(b.maxY - box.maxY) <= near
    }
    const under = index.search(box.minX, box.minY, box.maxX, box.maxY).filter((k) => k < i && alike(k)).map((k) => lines[k]!)
    const twin = under.find((other) => other.ink === line.ink && liesOn(line, other) && liesOn(other, line))
    return twin ? [{ key: `doubled ${line.id}`, kind: 'doubled', at: arcOfPath(line.path).point(arcOfPath(line.path).total / 2), items: [line.id, twin.id], mend: { do: 'delete', line: line.id } }] : []
  })
}

function liesOn(line: Line, other: Line): boolean {
  const [a, b] = [arcOfPath(line.path), arcOfPath(other.path)]
  if (!a.total || !b.total) return false
  for (let i = 0; i < PLACES; i++) if (b.nearest(a.point((a.total * i) / (PLACES - 1))).distance > NEAR * line.weight.size) return false
  return true
}
