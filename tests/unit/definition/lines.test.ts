import { expect, it } from 'vitest'
import type { Line } from '#core/model/model'
import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath } from '#core/geometry/path'
import { outlineOf } from '#core/outline/expand'
import { FlatOutline } from '../support/flat-outline'
import { judgeMany } from '../support/judge-many'
import { judgeOutlines } from '../support/judge-outline'
import { inkyLine } from '../support/random-lines'
import { few } from '../support/thorough'

judgeMany(1, few(200, 4000))

const closedOnes = Array.from({ length: few(240, 2400) }, (_, i) => inkyLine(i + 1)).filter((l) => l.path.closed)

it('closed lines without any width on a stretch go on over their seam', { timeout: 120_000 }, () => {
  const faults = closedOnes.flatMap((line, i) => {
    const from = 0.2 + 0.3 * ((i % 7) / 7)
    const bare = [from, from + 0.25].map((at) => ({ at, left: 0, right: 0 }))
    const stops = [{ at: 0.02, left: 0.9, right: 0.5 }, ...bare, { at: 0.94, left: 0.6, right: 1.1 }]
    return judgeOutlines({ ...line, weight: { ...line.weight, stops } }, [0.05]).faults
  })
  expect(closedOnes.length).toBeGreaterThan(20)
  expect(faults).toEqual([])
})

it('what shows of closed lines that are snipped is the same wherever they begin', () => {
  const wrong = closedOnes.flatMap((line): string[] => {
    const { nodes } = line.path
    const arc = new ArcLength(cubicsOfPath(line.path))
    const by = arc.starts[1]! / arc.total
    const at = (u: number): number => (u - by + 1) % 1
    // Between the second node and the third: far from both seams.
    const [from, to] = [0.4, 0.6].map((u) => by + u * (arc.starts[2]! / arc.total - by)) as [number, number]
    const weight = { ...line.weight, stops: [{ at: 0, left: 1, right: 1 }], start: null, end: null }
    const one: Line = { ...line, weight, snips: [{ from, to }] }
    const other: Line = {
      ...one,
      path: { closed: true, nodes: [...nodes.slice(1), nodes[0]!] },
      snips: [{ from: at(from), to: at(to) }],
    }
    const [a, b] = [one, other].map((l) => new FlatOutline(outlineOf(l, 0.02))) as [FlatOutline, FlatOutline]
    const out: string[] = []
    for (let y = -39.7; y < 220; y += 3)
      for (let x = -39.3; x < 220; x += 3)
        if (a.distance({ x, y }) > 0.1 && (a.winding({ x, y }) !== 0) !== (b.winding({ x, y }) !== 0))
          out.push(`${line.finish.join} (${x.toFixed(1)}, ${y.toFixed(1)})`)
    return out
  })
  expect(wrong).toEqual([])
})
