import type { Vec } from '#core/geometry/point'
import { short } from '#core/geometry/path'
import { distance } from '#core/geometry/point'
import type { Snap, SnapKind } from '#core/geometry/snap'
import { SNAP_KINDS, snapOf } from '#core/geometry/snap'
import type { Mark } from '~/canvas/marks'
import type { Hand } from './instrument'
import type { Hits, NextLine, Pencil, View } from './worktop'

/** How near the hand must come to a place, screen px. */
const REACH = 9

const SNAP_TITLES: Record<SnapKind, string> = {
  end: 'End',
  node: 'Node',
  crossing: 'Crossing',
  middle: 'Middle',
  tangent: 'Touch',
  line: 'Line',
  grid: 'Grid',
}

/** Draws an instrument's points to places near them, and shows what they were drawn to. */
export class Snapping {
  private shown: { snap: Snap; from: Vec | null } | null = null

  constructor(private readonly worktop: Hits & View & NextLine & Pencil) {}

  /**
   * The point that the hand means: the place that it is drawn to, or where it is. Distances are told from `from`; the line
   * named `except` draws nothing.
   */
  point(hand: Pick<Hand, 'at' | 'free'>, from: Vec | null = null, except?: string): Vec {
    const { snaps, gridSize } = this.worktop.preferences()
    const kinds = new Set(SNAP_KINDS.filter((k) => snaps[k]))
    this.shown = null
    if (hand.free) return hand.at
    const snap = kinds.size ? this.near(hand.at, kinds, gridSize, from, except) : null
    if (snap) this.shown = { snap, from }
    return snap?.at ?? this.worktop.crestAt(hand.at) ?? hand.at
  }

  private near(
    at: Vec,
    kinds: ReadonlySet<SnapKind>,
    gridSize: number,
    from: Vec | null,
    except: string | undefined,
  ): Snap | null {
    const paths = this.worktop
      .allLines(false)
      .filter((l) => l.id !== except)
      .map((l) => l.path)
    return snapOf(at, paths, {
      reach: REACH / this.worktop.zoom(),
      kinds,
      grid: kinds.has('grid') ? gridSize : 0,
      from,
    })
  }

  clear(): void {
    this.shown = null
  }

  marks(): Mark[] {
    if (!this.shown) return []
    const { snap, from } = this.shown
    const length = from && distance(from, snap.at)
    const text = length ? `${SNAP_TITLES[snap.kind]} · ${short(length, 1)} px` : SNAP_TITLES[snap.kind]
    return [{ kind: 'snap', at: snap.at, along: snap.along, text }]
  }
}
