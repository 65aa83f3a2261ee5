import type { Line, PathNode, Vec } from '#core/drawing/model'
import { newLine } from '#core/drawing/create'
import { findLayer } from '~/stores/find'
import type { Mark } from '~/canvas/marks'
import type { Bench, Hand, Instrument } from './instrument'
import { DRAG_START, screenDistance } from './instrument'

const mirrored = (about: Vec, p: Vec): Vec => ({ x: 2 * about.x - p.x, y: 2 * about.y - p.y })

/** Turns `p` about `from` to the nearest multiple of 15 degrees. */
function constrained(from: Vec, p: Vec): Vec {
  const step = Math.PI / 12
  const angle = Math.round(Math.atan2(p.y - from.y, p.x - from.x) / step) * step
  const l = Math.hypot(p.x - from.x, p.y - from.y)
  return { x: from.x + Math.cos(angle) * l, y: from.y + Math.sin(angle) * l }
}

/** Lays a line node by node: click for a corner, drag for a curve. */
export class Pen implements Instrument {
  readonly name = 'Pen'
  readonly cursor = 'crosshair'
  private nodes: PathNode[] = []
  private pressed: { screen: Vec; closing: boolean; dragging: boolean } | null = null
  private pointer: Vec | null = null

  constructor(private readonly bench: Bench) {}

  hint(): string {
    if (!this.nodes.length) return 'Click: corner · Drag: curve'
    if (this.pressed?.dragging) return 'Shift: 15° steps · Alt: only the handle ahead'
    const close = this.nodes.length > 1 ? ' · Click the start: close' : ''
    return `Click: corner · Drag: curve${close} · Enter: finish · Backspace: step back · Esc: drop`
  }

  press(hand: Hand): void {
    if (hand.clicks === 2 && this.nodes.length) {
      if (this.nodes.length > 1) this.finish(false)
      return
    }
    if (!this.nodes.length) {
      if (!this.bench.layerForInk()) return
      this.bench.select([])
    }
    const closing = hand.mark?.kind === 'closer' && this.nodes.length > 1
    const last = this.nodes[this.nodes.length - 1]
    if (!closing) {
      const at = hand.shift && last ? constrained(last.at, hand.at) : hand.at
      this.nodes.push({ at, in: null, out: null, joint: 'corner' })
    }
    this.pressed = { screen: hand.screen, closing, dragging: false }
    this.bench.refresh()
  }

  move(hand: Hand): void {
    const last = this.nodes[this.nodes.length - 1]
    this.pointer = hand.shift && last ? constrained(last.at, hand.at) : hand.at
    if (this.pressed) this.pull(hand)
    this.bench.refresh()
  }

  /** The press has become a drag: the node gets handles. */
  private pull(hand: Hand): void {
    const { pressed } = this
    if (!pressed || (!pressed.dragging && screenDistance(pressed.screen, hand.screen) < DRAG_START)) return
    pressed.dragging = true
    const node = pressed.closing ? this.nodes[0]! : this.nodes[this.nodes.length - 1]!
    const ahead = hand.shift ? constrained(node.at, hand.at) : hand.at
    if (pressed.closing) {
      node.in = mirrored(node.at, ahead)
      if (!hand.alt) {
        node.joint = 'smooth'
        node.out = ahead
      }
      return
    }
    node.out = ahead
    if (hand.alt) node.joint = 'corner'
    else {
      node.in = mirrored(node.at, ahead)
      node.joint = 'smooth'
    }
  }

  release(): void {
    const closing = this.pressed?.closing
    this.pressed = null
    if (closing) this.finish(true)
    this.bench.refresh()
  }

  cancel(): void {
    this.pressed = null
  }

  stepBack(): boolean {
    const any = this.nodes.length > 0
    this.nodes.pop()
    this.pressed = null
    this.bench.refresh()
    return any
  }

  key(key: string): boolean {
    if (!this.nodes.length) return false
    if (key === 'Backspace') return this.stepBack()
    if (key === 'Enter') this.finish(false)
    else if (key === 'Escape') this.discard()
    else return false
    this.bench.refresh()
    return true
  }

  /** Another instrument is taken up: what has been laid is kept when it is a line. */
  leave(): void {
    this.finish(false)
  }

  private discard(): void {
    this.nodes = []
    this.pressed = null
  }

  private finish(closed: boolean): void {
    const nodes = this.nodes
    this.discard()
    if (nodes.length < 2) return
    const layer = this.bench.layerForInk()
    if (!layer) return
    if (!closed) {
      nodes[0]!.in = null
      nodes[nodes.length - 1]!.out = null
      nodes[0]!.joint = nodes[nodes.length - 1]!.joint = 'corner'
    }
    const line = newLine({ nodes, closed }, { weight: this.bench.nextWeight() })
    this.bench.edit('Draw a line', (draft) => {
      findLayer(draft, layer)?.items.push(line)
    })
    this.bench.select([line.id])
  }

  freshInk(): Line | null {
    if (this.nodes.length < 2) return null
    const line = newLine({ nodes: this.nodes.map((n) => ({ ...n })), closed: false }, { id: 'fresh' })
    return { ...line, weight: this.bench.nextWeight() }
  }

  marks(): Mark[] {
    const marks: Mark[] = []
    const { nodes } = this
    if (!nodes.length) return marks
    const last = nodes[nodes.length - 1]!
    if (nodes.length > 1) marks.push({ kind: 'paths', paths: [{ nodes, closed: false }], tone: 'plum' })
    if (this.pointer && !this.pressed) {
      const next: PathNode = { at: this.pointer, in: null, out: null, joint: 'corner' }
      marks.push({ kind: 'paths', paths: [{ nodes: [last, next], closed: false }], tone: 'next' })
    }
    for (const side of ['in', 'out'] as const) {
      const at = last[side]
      if (at) marks.push({ kind: 'handle', from: last.at, at, ref: null })
    }
    if (nodes.length > 1) marks.push({ kind: 'closer', at: nodes[0]!.at })
    nodes.forEach((n, i) =>
      marks.push({ kind: 'node', at: n.at, joint: n.joint, chosen: i === nodes.length - 1, ref: null }),
    )
    return marks
  }
}
