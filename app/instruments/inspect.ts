import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { IslandOfInk, Shapes, View } from './worktop'
import { toggled } from './instrument'
import { thinned } from './thinned'

/** Chooses islands and shows their outlines and nodes. */
export class Inspect implements Instrument {
  readonly name = 'Inspect'
  readonly cursor = 'default'
  private over: IslandOfInk | null = null

  constructor(private readonly worktop: View & Shapes) {}

  hint(): string {
    return this.worktop.chosenIslands().length
      ? 'Shift+click: one more · Click paper: let go · Esc: let go'
      : 'Click an island of ink to see its nodes · Shift+click: several'
  }

  press({ at, shift }: Hand): void {
    const key = this.worktop.islandAt(at)?.key
    const chosen = this.worktop.chosenIslands().map((i) => i.key)
    this.worktop.chooseIslands(key ? (shift ? toggled(chosen, key) : [key]) : shift ? chosen : [])
    this.worktop.refresh()
  }

  move({ at }: Hand): void {
    const over = this.worktop.islandAt(at)
    if (over?.key === this.over?.key) return
    this.over = over
    this.worktop.refresh()
  }

  away(): void {
    this.over = null
  }

  key(key: string): boolean {
    const chosen = this.worktop.chosenIslands()
    const all = this.worktop.allIslands()
    if (key === 'Escape' && chosen.length) this.worktop.chooseIslands([])
    else if (key === 'Enter' && all.length) {
      const at = all.findIndex((i) => i.key === chosen.at(-1)?.key)
      this.worktop.chooseIslands([all[(at + 1) % all.length]!.key])
    } else return false
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const chosen = this.worktop.chosenIslands()
    const marks: Mark[] = []
    if (this.over && !chosen.some((i) => i.key === this.over!.key))
      marks.push({ kind: 'paths', paths: this.over.contours, tone: 'next' })
    if (chosen.length) marks.push({ kind: 'paths', paths: chosen.flatMap((i) => i.contours), tone: 'plum' })
    const expanded = this.worktop.expanded()
    if (expanded.length) marks.push({ kind: 'paths', paths: expanded, tone: 'before' })
    const nodes = chosen.flatMap((i) =>
      i.contours.flatMap((c) =>
        c.nodes.map((n): Mark => ({ kind: 'node', at: n.at, joint: n.joint, chosen: false, ref: null, small: true })),
      ),
    )
    return [...marks, ...thinned(nodes, this.worktop.zoom())]
  }
}
