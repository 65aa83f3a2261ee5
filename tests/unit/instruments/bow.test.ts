import { describe, expect, it } from 'vitest'
import { pointAt } from '#core/geometry/cubic'
import { arcOfPath } from '#core/geometry/known'
import { cubicsOfPath } from '#core/geometry/path'
import { distance } from '#core/geometry/point'
import { Bow } from '~/instruments/bow'
import { click, drag, hand, plainLine, TestWorktop } from '../support/desk'

/** Draws a chord and pulls its middle by (0, pull). */
function bowed(
  bow: Bow,
  from: [number, number],
  to: [number, number],
  pull: number,
  mark: Parameters<typeof hand>[2] = {},
  index = 0,
): void {
  drag(bow, [from, [(from[0] + to[0]) / 2, from[1]], to], mark)
  const middle: [number, number] = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2]
  drag(bow, [middle, [middle[0], middle[1] + pull / 2], [middle[0], middle[1] + pull]], {
    mark: { kind: 'belly', index },
  })
}

describe('the bow', () => {
  it('draws a chord and bends it where its middle is pulled', () => {
    const worktop = new TestWorktop()
    const bow = new Bow(worktop)
    bowed(bow, [0, 0], [100, 0], 30)
    expect(worktop.lines).toHaveLength(0)
    expect(bow.key('Enter')).toBe(true)
    const [c] = cubicsOfPath(worktop.lines[0]!.path)
    expect(distance(pointAt(c!, 0.5), { x: 50, y: 30 })).toBeLessThan(1e-9)
    expect(worktop.chosen).toEqual([worktop.lines[0]!.id])
    expect(worktop.labels).toEqual(['Draw a bow'])
  })

  it('bends a fresh chord that is pulled anywhere along it, and follows the hand there', () => {
    const worktop = new TestWorktop()
    const bow = new Bow(worktop)
    drag(bow, [0, 0, 50, 0, 100, 0])
    drag(bow, [30, 5, 30, 20, 30, 26])
    expect(worktop.lines).toHaveLength(0)
    bow.key('Enter')
    const { path } = worktop.lines[0]!
    const off = arcOfPath(path).nearest({ x: 30, y: 21 }).distance
    expect(off).toBeLessThan(2)
    // Undo in the middle of a pull takes back the pull alone.
    drag(bow, [0, 0, 50, 0, 100, 0])
    bow.press(hand(50, 0))
    bow.move(hand(50, 40))
    bow.cancel()
    bow.key('Enter')
    expect(worktop.lines[1]!.path.nodes.map((n) => n.out)).toEqual([null, null])
  })

  it('goes on from its end into one line, an S with a smooth joint', () => {
    const worktop = new TestWorktop()
    const bow = new Bow(worktop)
    bowed(bow, [0, 0], [100, 0], 30)
    bowed(bow, [100, 0], [200, 0], -30, { mark: { kind: 'joint', index: 1 } }, 1)
    bow.key('Enter')
    const { nodes } = worktop.lines[0]!.path
    expect(nodes).toHaveLength(3)
    expect(nodes[1]!.joint).toBe('smooth')
  })

  it('a click on the joint makes it a corner, another smooth again', () => {
    const bow = new Bow(new TestWorktop())
    bowed(bow, [0, 0], [100, 0], 30)
    bowed(bow, [100, 0], [200, 0], -30, { mark: { kind: 'joint', index: 1 } }, 1)
    const joint = () => bow.freshInk()!.path.nodes[1]!.joint
    click(bow, 100, 0, { mark: { kind: 'joint', index: 1 } })
    expect(joint()).toBe('corner')
    click(bow, 100, 0, { mark: { kind: 'joint', index: 1 } })
    expect(joint()).toBe('smooth')
  })

  it('joins at corners when asked to', () => {
    const worktop = new TestWorktop()
    worktop.wants.bowsJoin = false
    const bow = new Bow(worktop)
    bowed(bow, [0, 0], [100, 0], 30)
    bowed(bow, [100, 0], [200, 0], -30, { mark: { kind: 'joint', index: 1 } }, 1)
    expect(bow.freshInk()!.path.nodes[1]!.joint).toBe('corner')
  })

  it('a chord begun elsewhere finishes the line and starts another', () => {
    const worktop = new TestWorktop()
    const bow = new Bow(worktop)
    bowed(bow, [0, 0], [100, 0], 30)
    bowed(bow, [0, 80], [100, 80], 30)
    expect(worktop.lines).toHaveLength(1)
    bow.leave()
    expect(worktop.lines).toHaveLength(2)
    expect(worktop.lines[1]!.path.nodes.map((n) => n.at)).toEqual([
      { x: 0, y: 80 },
      { x: 100, y: 80 },
    ])
  })

  it('with Shift the chord keeps to steps of 15 degrees and the pull to straight across', () => {
    const bow = new Bow(new TestWorktop())
    drag(bow, [0, 0, 50, 1, 100, 4], { shift: true })
    expect(bow.freshInk()!.path.nodes[1]!.at.y).toBeCloseTo(0, 9)
    drag(bow, [50, 0, 60, 20], { shift: true, mark: { kind: 'belly', index: 0 } })
    const [c] = cubicsOfPath(bow.freshInk()!.path)
    expect(pointAt(c!, 0.5).x).toBeCloseTo(bow.freshInk()!.path.nodes[1]!.at.x / 2, 6)
  })

  it('a click or a slip of the hand draws nothing', () => {
    const worktop = new TestWorktop()
    const bow = new Bow(worktop)
    click(bow, 10, 10)
    drag(bow, [10, 10, 14, 10, 11, 10])
    bow.leave()
    expect(worktop.lines).toHaveLength(0)
    expect(bow.marks()).toEqual([])
  })

  it('takes chords back one by one, and drops all with Escape', () => {
    const worktop = new TestWorktop()
    const bow = new Bow(worktop)
    bowed(bow, [0, 0], [100, 0], 30)
    bowed(bow, [100, 0], [200, 0], -30, { mark: { kind: 'joint', index: 1 } }, 1)
    bow.key('Backspace')
    expect(bow.freshInk()!.path.nodes).toHaveLength(2)
    expect(bow.stepBack()).toBe(true)
    expect(bow.stepBack()).toBe(false)
    bowed(bow, [0, 0], [100, 0], 30)
    bow.key('Escape')
    bow.key('Enter')
    expect(worktop.lines).toHaveLength(0)
  })

  it('a joint can be moved while the line is laid', () => {
    const bow = new Bow(new TestWorktop())
    bowed(bow, [0, 0], [100, 0], 30)
    drag(bow, [0, 0, 5, 5, 10, 20], { mark: { kind: 'joint', index: 0 } })
    expect(bow.freshInk()!.path.nodes[0]!.at).toEqual({ x: 10, y: 20 })
  })

  it('a drag that was taken away leaves what stood before', () => {
    const bow = new Bow(new TestWorktop())
    bow.press(hand(0, 0))
    bow.move(hand(60, 0))
    bow.cancel()
    expect(bow.freshInk()).toBeNull()
  })

  it('does not begin where no layer takes ink, and alters no line nearby', () => {
    const old = plainLine({ x: 0, y: 0 }, { x: 50, y: 0 })
    const worktop = new TestWorktop([old])
    worktop.locked = true
    const bow = new Bow(worktop)
    drag(bow, [50, 0, 70, 0, 90, 0])
    // The nib in hand is all that shows.
    expect(bow.marks().map((m) => m.kind)).toEqual(['brush'])
    worktop.locked = false
    drag(bow, [50, 0, 70, 0, 90, 0])
    bow.key('Enter')
    expect(worktop.lines).toHaveLength(2)
    expect(worktop.lines[0]).toEqual(old)
  })
})
