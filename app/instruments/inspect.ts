import type { Mark } from '~/canvas/marks'
import type { Worktop, Hand, Instrument } from './instrument'

/** Outlines with more nodes than this show their path without them. */
const MOST_NODES = 1500

/** Shows a shape's outline and nodes. */
export class Inspect implements Instrument {
  readonly name = 'Inspect'
  readonly cursor = 'default'

  constructor(private readonly worktop: Worktop) {}

  hint(): string {
    return this.worktop.chosenShape() ? 'Click paper: let go · Esc: let go' : 'Click a shape to see its nodes'
  }

  press(hand: Hand): void {
    this.worktop.chooseShape(this.worktop.shapeAt(hand.at)?.id ?? null)
    this.worktop.refresh()
  }

  key(key: string): boolean {
    if (key !== 'Escape') return false
    this.worktop.chooseShape(null)
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const shape = this.worktop.chosenShape()
    if (!shape) return []
    const count = shape.contours.reduce((n, c) => n + c.nodes.length, 0)
    const outline: Mark = { kind: 'paths', paths: shape.contours, tone: 'plum' }
    if (count > MOST_NODES) return [outline]
    const nodes = shape.contours.flatMap((contour) =>
      contour.nodes.map((n): Mark => ({ kind: 'node', at: n.at, joint: n.joint, chosen: false, ref: null, small: true })),
    )
    return [outline, ...nodes]
  }
}
