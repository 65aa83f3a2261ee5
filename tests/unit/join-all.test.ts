import { describe, expect, it } from 'vitest'
import { newLine } from '#core/model/create'
import { goingOneWay, joinedAll } from '#core/editing/join-all'
import { arcOfPath } from '#core/geometry/known'
import { distance } from '#core/geometry/point'
import type { Line } from '#core/model/model'
import { polyline } from './support/paths'

const line = (id: string, ...xy: number[]): Line =>
  newLine(polyline(...xy), {
    id,
    weight: {
      ...{ size: 8, start: null, end: null, nib: null, pinned: false },
      stops: [
        { at: 0, left: 0.2, right: 1 },
        { at: 0.4, left: 1, right: 0.5 },
        { at: 1, left: 0.7, right: 0.7 },
      ],
    },
  })

describe('the ends of many lines', () => {
  // A triangle of three, one drawn the other way, with gaps of 0, 0.3 and 4 px; and one far away.
  const three = [line('a', 0, 0, 100, 0), line('b', 60, 90, 100, 0.3), line('c', 60, 90, 3, 3)]
  const far = line('far', 300, 300, 400, 310)

  it('are joined where they touch; the rest stays open, and every place is known by where it was', () => {
    const { lines, remade, joints } = joinedAll([...three, far], 0.5, 'miter')
    expect(joints).toBe(2)
    expect(lines.map((l) => l.id)).toEqual(['a', 'far'])
    const [one] = lines
    expect(one!.path).toMatchObject({ closed: false })
    expect(one!.path.nodes).toHaveLength(4)
    expect(lines.map((l) => l.finish.join)).toEqual(['miter', far.finish.join])
    const arc = arcOfPath(one!.path)
    for (const was of three) {
      const own = arcOfPath(was.path)
      for (const s of [0.1, 0.55, 0.9]) {
        const on = remade.get(was.id)!.find((r) => r.from <= s && s <= r.to)!
        const at = on.at[0] + ((on.at[1] - on.at[0]) * (s - on.from)) / (on.to - on.from)
        expect(distance(arc.point(at * arc.total), own.point(s * own.total)), `${was.id} ${s}`).toBeLessThan(0.3)
      }
    }
  })

  it('meet half way over a small gap, and a line that goes round is closed', () => {
    const { lines, joints } = joinedAll(three, 6, 'round')
    expect(joints).toBe(3)
    expect(lines).toHaveLength(1)
    expect(lines[0]!.path.closed).toBe(true)
    expect(lines[0]!.path.nodes).toHaveLength(3)
    expect(Math.min(...lines[0]!.path.nodes.map((n) => distance(n.at, { x: 1.5, y: 1.5 })))).toBeLessThan(1e-9)
  })

  it('are turned one way, loops among themselves', () => {
    const { lines, remade } = goingOneWay([
      line('a', 0, 0, 90, 20),
      line('b', 80, 60, 5, 70),
      line('c', 10, 99, 70, 80),
    ])
    expect(lines.map((l) => l.id)).toEqual(['b'])
    expect(lines[0]!.path.nodes[0]!.at).toEqual({ x: 5, y: 70 })
    expect(lines[0]!.weight.stops.map((s) => s.at)).toEqual([0, 0.6, 1])
    expect([...remade.keys()]).toEqual(['b'])
  })
})
