import { pulledSegment, withArm, withoutNode } from '#core/editing/edit-path'
import { arcOfPath } from '#core/geometry/known'
import type { Vec } from '#core/geometry/point'
import { add, subtract } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import type { Hand } from './instrument'
import { DRAG_START, screenDistance } from './instrument'
import type { Laid } from './laid-nodes'
import { pathOfLaid } from './laid-nodes'
import { nodeMarks } from './node-marks'
import type { View } from './worktop'

/** Segments are taken hold of within this of their curve, screen px. */
const REACH = 8

/** Marks of what is being laid name no line. */
const LAID = ''

type Held =
  | { kind: 'node'; index: number }
  | { kind: 'handle'; index: number; side: 'in' | 'out' }
  | { kind: 'body'; segment: number; t: number }

/** Mends nodes that are being laid, while the line is under way: nodes and handles are dragged, segments pulled, nodes taken out. */
export class LaidMending {
  private held: { what: Held; before: readonly Laid[]; at: Vec; screen: Vec; moved: boolean } | null = null

  constructor(private readonly worktop: View) {}

  get isHolding(): boolean {
    return this.held !== null
  }

  /** Takes hold of what is under the hand; answers whether anything is. Nodes before `from` are of a line that stays as it is. */
  press(hand: Hand, nodes: readonly Laid[], from: number): boolean {
    const what = this.under(hand, nodes)
    const first = what?.kind === 'body' ? what.segment + 1 : what?.index
    if (!what || first! < from) return false
    this.held = { what, before: nodes, at: hand.at, screen: hand.screen, moved: false }
    return true
  }

  private under({ mark, at }: Hand, nodes: readonly Laid[]): Held | null {
    if (mark?.kind === 'node' && mark.line === LAID) return { kind: 'node', index: mark.index }
    if (mark?.kind === 'handle' && mark.line === LAID) return { kind: 'handle', index: mark.index, side: mark.side }
    if (nodes.length < 2) return null
    const arc = arcOfPath(pathOfLaid(nodes, false))
    const near = arc.nearest(at)
    if (near.distance * this.worktop.zoom() > REACH) return null
    return { kind: 'body', ...arc.locate(near.length) }
  }

  /** The nodes as the hand has them now. */
  move(hand: Hand): readonly Laid[] {
    const { held } = this
    if (!held) return []
    held.moved ||= screenDistance(held.screen, hand.screen) >= DRAG_START
    if (!held.moved) return held.before
    const { what, before } = held
    const d = subtract(hand.at, held.at)
    if (what.kind === 'body') {
      const pulled = pulledSegment(pathOfLaid(before, false), what.segment, what.t, d).nodes
      const isBeside = (i: number): boolean => i === what.segment || i === what.segment + 1
      return before.map((n, i) => (isBeside(i) ? { ...pulled[i]!, auto: false } : n))
    }
    return before.map((n, i) => {
      if (i !== what.index) return n
      if (what.kind === 'handle') {
        const whole = pathOfLaid(before, false).nodes[i]!
        return { ...withArm(whole, what.side, add(whole[what.side]!, d)), auto: false }
      }
      return { ...n, at: add(n.at, d), in: n.in && add(n.in, d), out: n.out && add(n.out, d) }
    })
  }

  /** Lets go. A node that was only clicked is taken out, where two are left. */
  release(): readonly Laid[] | null {
    const { held } = this
    this.held = null
    if (!held || held.moved || held.what.kind !== 'node' || held.before.length < 3) return null
    const { index } = held.what
    const left = withoutNode(pathOfLaid(held.before, false), index).nodes
    return held.before.filter((_, i) => i !== index).map((n, i) => (n.auto ? n : { ...left[i]!, auto: false }))
  }

  /** Lets go; the nodes as they were. */
  cancel(): readonly Laid[] | null {
    const before = this.held?.before ?? null
    this.held = null
    return before
  }

  /** All that can be taken hold of. */
  marks(nodes: readonly Laid[], from: number): Mark[] {
    return nodeMarks(pathOfLaid(nodes, false), LAID, () => false, from)
  }
}
