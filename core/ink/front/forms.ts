import type { Path, PathNode } from '../../geometry/path'
import { reversePath } from '../../geometry/path'
import type { Line } from '../../model/model'
import type { EndContact } from '../../relations/end-contacts'
import type { Step } from './chains'
import { chainsOf } from './chains'
import type { Form } from './form'
import { areaOf } from './form'
import type { Bow, Bridged } from './form-bridges'
import { bridged, handlesOf, keyOfLines } from './form-bridges'
import { FormIndex, runsInto } from './form-index'

/** A form as it was found last. */
interface Known {
  steps: readonly Step[]
  open: boolean
  bow: Bow | undefined
  loop: Path
  bridge: Bridged | null
}

/** Forms with less area than this, px squared, are none. */
const LEAST_AREA = 1

/** Finds the forms that lines bound, and keeps the loops of those whose lines are the same. */
export class Forms {
  private known = new Map<string, Known>()
  private index: FormIndex | null = null

  /**
   * Closed lines, and lines that go round a region one after the other, end to end; or that both come to an end on another
   * form, which they run into. In the order of the stack by their topmost lines.
   *
   * @param lines bottom to top
   * @param endsOf what the ends of a line do, by its id
   * @param bent how bridges are bent, by the lines of their forms
   */
  of(
    lines: readonly Line[],
    endsOf: (id: string) => readonly EndContact[],
    bent: ReadonlyMap<string, Bow> = new Map(),
  ): Form[] {
    const before = this.known
    this.known = new Map()
    const formOf = (steps: readonly Step[], open: boolean): Form | null => {
      const key = keyOfLines(steps.map((s) => s.line.id))
      const bow = open ? bent.get(key) : undefined
      const was = before.get(key)
      const isSame =
        was !== undefined &&
        was.open === open &&
        was.bow === bow &&
        was.steps.length === steps.length &&
        was.steps.every((s, i) => s.line.path === steps[i]!.line.path && s.turned === steps[i]!.turned)
      const now = isSame ? was : { steps, open, bow, ...loopOf(steps, open, bow) }
      this.known.set(key, now)
      if (areaOf(now.loop) < LEAST_AREA) return null
      return { key, lines: steps.map((s) => s.line), loop: now.loop, bridge: now.bridge }
    }
    const { rounds, ways } = chainsOf(lines, endsOf)
    const whole = rounds.flatMap((steps) => formOf(steps, false) ?? [])
    const index = this.index?.isOf(whole) ? this.index : (this.index = new FormIndex(whole))
    const opened = ways.flatMap((steps) => (runsInto(steps, index, endsOf) ? (formOf(steps, true) ?? []) : []))
    const place = new Map(lines.map((l, i) => [l.id, i]))
    const top = (f: Form): number => Math.max(...f.lines.map((l) => place.get(l.id)!))
    return [...whole, ...opened].sort((a, b) => top(a) - top(b))
  }
}

/**
 * Steps one after the other as one closed path; where ends do not quite touch, straight on to the next. From the last end of an
 * open form a bridge leads back to the first.
 */
function loopOf(steps: readonly Step[], open: boolean, bow: Bow | undefined): Pick<Known, 'loop' | 'bridge'> {
  const [only] = steps
  if (steps.length === 1 && only!.line.path.closed) return { loop: only!.line.path, bridge: null }
  const nodes = steps.flatMap(({ line, turned }): PathNode[] => {
    const way = (turned ? reversePath(line.path) : line.path).nodes
    return way.map((n, i) => ({
      ...n,
      ...(i === 0 && { in: null, joint: 'corner' }),
      ...(i === way.length - 1 && { out: null, joint: 'corner' }),
    }))
  })
  if (!open) return { loop: { nodes, closed: true }, bridge: null }
  const [first, last] = [nodes[0]!, nodes.at(-1)!]
  const isTurned = endId(steps.at(-1)!, true) > endId(steps[0]!, false)
  const bridge = isTurned ? bridged(first.at, last.at, bow) : bridged(last.at, first.at, bow)
  if (bow) {
    const { ofFrom, ofTo } = handlesOf(bridge)
    nodes[0] = { ...first, in: isTurned ? ofFrom : ofTo }
    nodes[nodes.length - 1] = { ...nodes.at(-1)!, out: isTurned ? ofTo : ofFrom }
  }
  return { loop: { nodes, closed: true }, bridge }
}

/** The end at which a walk begins, or where it comes out: ids have an order that stays. */
const endId = ({ line, turned }: Step, out: boolean): string => `${line.id} ${turned === out ? 'first' : 'last'}`
