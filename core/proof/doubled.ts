import type { Line } from '../model/model'
import { arcOfPath, boxOfPath } from '../geometry/known'
import type { Finding, Proofed } from './finding'

/** Lines lie over each other when no place of the one is farther from the other than this share of its size. */
const NEAR = 0.25
const PLACES = 9

/** Lines that lie on another one all along, as a stroke that was laid twice: the upper one of each two. */
export function doubledLines({ lines }: Proofed): Finding[] {
  const boxes = lines.map((l) => boxOfPath(l.path))
  // Lines that lie on each other begin about as far left: only such neighbours are compared.
  const fromLeft = lines.map((_, i) => i).sort((a, b) => boxes[a]!.minX - boxes[b]!.minX)
  const place = new Int32Array(lines.length)
  fromLeft.forEach((i, k) => (place[i] = k))
  return lines.flatMap((line, i): Finding[] => {
    const box = boxes[i]!
    const near = NEAR * line.weight.size
    const alike: number[] = []
    for (const step of [-1, 1]) {
      for (let k = place[i]! + step; k >= 0 && k < lines.length; k += step) {
        const other = fromLeft[k]!
        const b = boxes[other]!
        if (Math.abs(b.minX - box.minX) > near) break
        if (
          other < i &&
          Math.abs(b.minY - box.minY) <= near &&
          Math.abs(b.maxX - box.maxX) <= near &&
          Math.abs(b.maxY - box.maxY) <= near
        )
          alike.push(other)
      }
    }
    const twin = alike
      .map((k) => lines[k]!)
      .find((other) => other.ink === line.ink && liesOn(line, other) && liesOn(other, line))
    return twin
      ? [
          {
            key: `doubled ${line.id}`,
            kind: 'doubled',
            at: arcOfPath(line.path).point(arcOfPath(line.path).total / 2),
            items: [line.id, twin.id],
            mend: { do: 'delete', line: line.id },
          },
        ]
      : []
  })
}

function liesOn(line: Line, other: Line): boolean {
  const [a, b] = [arcOfPath(line.path), arcOfPath(other.path)]
  if (!a.total || !b.total) return false
  for (let i = 0; i < PLACES; i++)
    if (b.nearest(a.point((a.total * i) / (PLACES - 1))).distance > NEAR * line.weight.size) return false
  return true
}
