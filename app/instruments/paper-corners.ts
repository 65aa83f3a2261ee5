import type { Vec } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Sketches, View } from './worktop'
import { arrowStep } from './instrument'
import { whySketchIsShut } from './sketch-in-hand'

/** Screen px. */
const REACH = 28

/** The four corners of a sheet in a photo, dragged to where they are; what lies within is then seen from straight above. */
export class PaperCorners implements Instrument {
  readonly name = 'Corners'
  readonly cursor = 'default'
  private held: { index: number; off: Vec } | null = null
  private last = 0

  constructor(private readonly worktop: View & Sketches) {
    void worktop.paper().offer(false)
  }

  hint(): string {
    const why = whySketchIsShut(this.worktop)
    if (why) return why
    if (this.held) return 'Release: the corner of the sheet is here'
    return this.worktop.paper().isLaid
      ? 'Drag the marks onto the corners of the sheet · Enter: set it right · Esc: put the marks back'
      : 'Drag each mark onto a corner of the sheet of paper'
  }

  press(hand: Hand): void {
    const why = whySketchIsShut(this.worktop)
    if (why) return this.worktop.say(why)
    const { corners } = this.worktop.paper()
    const index =
      hand.mark?.kind === 'corner' ? hand.mark.index : nearest(corners ?? [], hand.at, REACH / this.worktop.zoom())
    if (index === null || !corners) return
    this.held = { index, off: { x: corners[index]!.x - hand.at.x, y: corners[index]!.y - hand.at.y } }
    this.last = index
  }

  move(hand: Hand): void {
    if (!this.held) return
    this.worktop.paper().lay(this.held.index, { x: hand.at.x + this.held.off.x, y: hand.at.y + this.held.off.y })
    this.worktop.refresh()
  }

  release(): void {
    this.held = null
    this.worktop.refresh()
  }

  cancel(): void {
    this.held = null
  }

  leave(): void {
    this.held = null
    this.worktop.paper().putAway()
  }

  key(key: string, shift: boolean): boolean {
    const paper = this.worktop.paper()
    const d = arrowStep(key, shift)
    if (d && paper.corners && !whySketchIsShut(this.worktop)) {
      const at = paper.corners[this.last]!
      paper.lay(this.last, { x: at.x + d.x, y: at.y + d.y })
    } else if (key === 'Enter' && paper.isLaid) void paper.keep()
    else if (key === 'Escape' && paper.isLaid) paper.putAway()
    else return false
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const { corners } = this.worktop.paper()
    return corners && !whySketchIsShut(this.worktop) ? [{ kind: 'frame', corners }] : []
  }
}

function nearest(points: readonly Vec[], p: Vec, reach: number): number | null {
  const off = points.map((q) => Math.hypot(q.x - p.x, q.y - p.y))
  const least = Math.min(...off)
  return least <= reach ? off.indexOf(least) : null
}
