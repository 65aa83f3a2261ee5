import { describe, expect, it } from 'vitest'
import { newLine } from '#core/model/create'
import type { Path } from '#core/geometry/path'
import { arcOfPath } from '#core/geometry/known'
import type { Crests } from '#core/sketch/crests'
import { PencilMap } from '#core/sketch/pencil-map'
import { Freehand } from '~/instruments/freehand'
import { Nodes } from '~/instruments/nodes'
import { Pen } from '~/instruments/pen'
import { Propose } from '~/instruments/propose'
import { Settle } from '~/instruments/settle'
import type { Offer } from '~/instruments/offer'
import { click, drag, hand, straightPath, TestWorktop } from '../support/desk'

/** One pencil line across the page, at y = 100. */
function pencil(): PencilMap {
  const [width, height] = [400, 200]
  const crests: Crests = {
    width,
    height,
    way: new Uint8Array(width * height),
    strength: Uint8Array.from({ length: width * height }, (_, i) =>
      Math.round(255 * Math.exp(-((Math.floor(i / width) + 0.5 - 100) ** 2) / 8)),
    ),
  }
  return new PencilMap(crests, { x: 0, y: 0, width, height, angle: 0 })
}
const sketched = (...lines: ConstructorParameters<typeof TestWorktop>[0] & object): TestWorktop =>
  Object.assign(new TestWorktop(lines), { sketched: pencil() })
/** How far a line lies from the pencil, px, at most. */
const off = (worktop: TestWorktop, i = 0): number => {
  const arc = arcOfPath(worktop.lines[i]!.path)
  return Math.max(...Array.from({ length: 41 }, (_, k) => Math.abs(arc.point((k / 40) * arc.total).y - 100)))
}
const wavering = Array.from({ length: 90 }, (_, i): [number, number] => [40 + i * 3, 104 + 3 * Math.sin(i / 6)])

describe('over pencil', () => {
  it('freehand is drawn onto it, unless it is let go free', () => {
    const worktop = sketched()
    drag(new Freehand(worktop), wavering)
    expect(off(worktop)).toBeLessThan(0.8)
    const free = sketched()
    const tool = new Freehand(free)
    tool.press(hand(...wavering[0]!, { free: true }))
    for (const p of wavering.slice(1)) tool.move(hand(...p, { free: true }))
    tool.release(hand(...wavering.at(-1)!, { free: true }))
    expect(off(free)).toBeGreaterThan(3)
  })

  it('a line that is gone on with goes on from its very end', () => {
    const line = newLine(straightPath({ x: 20, y: 108 }, { x: 60, y: 108 }), { id: 'a' })
    const worktop = sketched(line)
    const tool = new Freehand(worktop)
    const mark = { kind: 'end', line: 'a', end: 'last' } as const
    const path: [number, number][] = [[60, 108], ...wavering.filter(([x]) => x > 66)]
    tool.press(hand(...path[0]!, { mark }))
    for (const p of path.slice(1)) tool.move(hand(...p))
    tool.release(hand(...path.at(-1)!))
    const arc = arcOfPath(worktop.lines[0]!.path)
    expect(arc.nearest({ x: 60, y: 108 }).distance).toBeLessThan(0.01)
    expect(Math.abs(arc.point(arc.total * 0.7).y - 100)).toBeLessThan(1)
  })

  it('points of the Pen go to its crest', () => {
    const worktop = sketched()
    const tool = new Pen(worktop)
    click(tool, 60, 106)
    click(tool, 300, 95)
    tool.key('Enter')
    expect(off(worktop)).toBeLessThan(0.8)
  })

  it('a segment that is bent, and those beside a node that is moved, keep to it; pulled far off, or free, they do not', () => {
    const bent: Path = {
      closed: false,
      nodes: [
        { at: { x: 40, y: 100 }, in: null, out: { x: 100, y: 120 }, joint: 'corner' },
        { at: { x: 180, y: 100 }, in: { x: 130, y: 84 }, out: { x: 230, y: 116 }, joint: 'smooth' },
        { at: { x: 320, y: 100 }, in: { x: 260, y: 90 }, out: null, joint: 'corner' },
      ],
    }
    const of = (): { worktop: TestWorktop; tool: Nodes } => {
      const worktop = sketched(newLine(bent, { id: 'a' }))
      worktop.select(['a'])
      return { worktop, tool: new Nodes(worktop) }
    }
    const middle = arcOfPath(bent).point(arcOfPath(bent).starts[1]! * 0.5)
    const pulled = (by: number, free: boolean): number => {
      const { worktop, tool } = of()
      drag(tool, [middle.x, middle.y, middle.x, middle.y + by / 2, middle.x, middle.y + by], { free })
      const arc = arcOfPath(worktop.lines[0]!.path)
      return Math.max(...Array.from({ length: 21 }, (_, k) => Math.abs(arc.point((k / 20) * arc.starts[1]!).y - 100)))
    }
    expect(pulled(4, false)).toBeLessThan(0.8)
    expect(pulled(4, true)).toBeGreaterThan(4)
    expect(pulled(60, false)).toBeGreaterThan(30)
    const { worktop, tool } = of()
    drag(tool, [180, 100, 186, 102, 190, 103], { mark: { kind: 'node', line: 'a', index: 1 } })
    expect(off(worktop)).toBeLessThan(0.8)
    const [, node] = worktop.lines[0]!.path.nodes
    expect(node!.at.x).toBeCloseTo(190, 0)
    // Smooth as before: one way through.
    const [u, v] = [node!.in!, node!.out!].map((p) => Math.atan2(p.y - node!.at.y, p.x - node!.at.x))
    expect(Math.abs(Math.abs(u! - v!) - Math.PI)).toBeLessThan(1e-6)
  })

  it('lines beside it settle when that is accepted, and not before', () => {
    const worktop = sketched(
      newLine(straightPath({ x: 40, y: 106 }, { x: 300, y: 104 }), { id: 'near' }),
      newLine(straightPath({ x: 40, y: 160 }, { x: 300, y: 170 }), { id: 'far' }),
    )
    const far = worktop.lines[1]!
    const tool = new Settle(worktop)
    expect(off(worktop)).toBeGreaterThan(3)
    expect(tool.key('Enter')).toBe(true)
    expect(off(worktop)).toBeLessThan(0.8)
    expect(worktop.lines[1]).toEqual(far)
    expect(worktop.labels).toEqual(['Settle a line on the pencil'])
  })
})

describe('proposals', () => {
  const offer = (y: number, mean = 3): Offer => ({
    path: straightPath({ x: 40, y }, { x: 300, y }),
    confidence: 0.9,
    thickness: {
      mean,
      stops: [
        { at: 0, left: 0.6, right: 0.6 },
        { at: 1, left: 1.4, right: 1.4 },
      ],
    },
  })

  it('are taken with the next weight, or as the pencil is thick; a box asks for more', () => {
    const worktop = Object.assign(new TestWorktop(), { offers: [offer(50), offer(120, 4)] })
    const tool = new Propose(worktop)
    click(tool, 100, 50)
    worktop.wants.proposals.weight = 'pencil'
    click(tool, 100, 120)
    const [a, b] = worktop.lines.map((l) => l.weight)
    expect(a).toEqual(worktop.nextWeight())
    // Usually 2 px: twice as thick as most.
    expect(b).toMatchObject({
      size: 2 * worktop.nextWeight().size,
      start: null,
      end: null,
      stops: worktop.offers[1]!.thickness.stops,
    })
    drag(tool, [20, 20, 200, 100, 220, 150], { shift: true })
    expect(worktop.boxes).toEqual([
      [
        { x: 20, y: 20 },
        { x: 220, y: 150 },
      ],
    ])
    expect(worktop.lines).toHaveLength(2)
  })

  it('are looked for and then taken by Enter', () => {
    const worktop = new TestWorktop()
    const tool = new Propose(worktop)
    expect(tool.key('Enter')).toBe(true)
    expect([worktop.boxes, worktop.lines]).toEqual([[null], []])
    worktop.offers = [offer(50), offer(120, 4)]
    expect(tool.key('Enter')).toBe(true)
    expect(worktop.lines.map((l) => l.path.nodes[0]!.at.y)).toEqual([50, 120])
    expect(worktop.labels).toEqual(['Take 2 proposals'])
  })
})
