import type { Guide } from '#core/geometry/align'
import { alignedWith, movedToAlign } from '#core/geometry/align'
import type { Path, PathNode } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { short } from '#core/geometry/path'
import { add, distance } from '#core/geometry/point'
import type { Snap, SnapKind } from '#core/geometry/snap'
import { SNAP_KINDS, snapOf } from '#core/geometry/snap'
import type { Mark } from '~/canvas/marks'
import type { Hand } from './instrument'
import type { Edits, Hits, NextLine, Pencil, View } from './worktop'

/** How near the hand must come to a place, screen px. */
const REACH = 9

/** How near the hand must come to be in line with something, and how far that may lie, screen px. */
const ALIGNED = 5
const SPAN = 500

/** A node without handles. */
export const cornerAt = (at: Vec): PathNode => ({ at, in: null, out: null, joint: 'corner' })

const SNAP_TITLES: Record<SnapKind, string> = {
  end: 'End',
  node: 'Node',
  crossing: 'Crossing',
  middle: 'Middle',
  tangent: 'Touch',
  line: 'Line',
  align: 'In line',
  grid: 'Grid',
}

/** Draws an instrument's points to places near them, and shows what they were drawn to. */
export class Snapping {
  private shown: { snap: Snap; from: Vec | null; guides?: readonly Guide[] } | null = null

  constructor(private readonly worktop: Edits & Hits & View & NextLine & Pencil) {}

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
    const place = snap?.at ?? this.worktop.crestAt(hand.at)
    if (place) return place
    const aligned = kinds.has('align') ? alignedWith(hand.at, this.paths(except), this.alignedWithin()) : null
    if (!aligned) return hand.at
    this.shown = {
      snap: { at: aligned.at, kind: 'align', along: null },
      from: aligned.guides[0]!.from,
      guides: aligned.guides,
    }
    return aligned.at
  }

  private near(
    at: Vec,
    kinds: ReadonlySet<SnapKind>,
    gridSize: number,
    from: Vec | null,
    except: string | undefined,
  ): Snap | null {
    return snapOf(at, this.paths(except), {
      reach: REACH / this.worktop.zoom(),
      kinds,
      grid: kinds.has('grid') ? gridSize : 0,
      from,
    })
  }

  private paths(except: string | undefined): Path[] {
    return this.worktop
      .allLines(false)
      .filter((l) => l.id !== except)
      .map((l) => l.path)
  }

  private alignedWithin(): { reach: number; span: number } {
    const zoom = this.worktop.zoom()
    return { reach: ALIGNED / zoom, span: SPAN / zoom }
  }

  /** The way that things go which are moved by `d`, px: so that one of their points is in line with what lies near, or all of it. */
  moved(d: Vec, points: readonly Vec[], ids: ReadonlySet<string>, free: boolean): Vec {
    this.shown = null
    if (free || !this.worktop.preferences().snaps.align) return d
    const paths = this.worktop.allLines(false).flatMap((l) => (ids.has(l.id) ? [] : [l.path]))
    const now = points.map((p) => add(p, d))
    const aligned = movedToAlign(now, paths, this.alignedWithin())
    if (!aligned) return d
    const [{ from, at }] = aligned.guides as [Guide]
    this.shown = { snap: { at, kind: 'align', along: null }, from, guides: aligned.guides }
    return add(d, aligned.by)
  }

  clear(): void {
    this.shown = null
  }

  marks(): Mark[] {
    if (!this.shown) return []
    const { snap, from, guides = [] } = this.shown
    const length = from && distance(from, snap.at)
    const { unit, pxPerMm } = this.worktop.drawing().page
    const told = length && (unit === 'mm' ? `${short(length / pxPerMm, 1)} mm` : `${short(length, 1)} px`)
    const text = told ? `${SNAP_TITLES[snap.kind]} · ${told}` : SNAP_TITLES[snap.kind]
    const paths = guides.map((g) => ({ nodes: [g.from, g.at].map(cornerAt), closed: false }))
    return [
      ...(paths.length ? [{ kind: 'paths', paths, tone: 'mute' } as const] : []),
      { kind: 'snap', at: snap.at, along: snap.along, text },
    ]
  }
}
