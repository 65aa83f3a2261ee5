import type { Mark } from '~/canvas/marks'
import { chosenLines } from './line-marks'
import { Nodes } from './nodes'
import { thinned } from './thinned'

/** Contours with more nodes than this show their handles only where nodes are chosen: the drawing must stay in sight. */
const MANY = 24

/** Moves, adds and takes out nodes of the outlines that the lines make. */
export class OutlineNodes extends Nodes {
  override hint(): string {
    const hint = super.hint()
    return this.worktop.selection().length
      ? hint
      : hint.replace('Click a line', 'Click an outline').replace('choose nodes', 'choose nodes of outlines')
  }

  override marks(): Mark[] {
    const marks = thinned(super.marks(), this.worktop.zoom())
    if (chosenLines(this.worktop).reduce((n, l) => n + l.path.nodes.length, 0) <= MANY) return marks
    const chosen = new Set(this.worktop.nodes().map((n) => `${n.line} ${n.index}`))
    return marks.filter(
      (m) => m.kind !== 'handle' || m.ref?.kind !== 'handle' || chosen.has(`${m.ref.line} ${m.ref.index}`),
    )
  }
}
