import type { Ref } from 'vue'
import type { Drawing, Path, Vec } from '#core/drawing/model'
import { cubicsOfPath } from '#core/geometry/path'
import { windingAt } from '#core/geometry/winding-at'
import { colourOf, linesOf } from '#core/drawing/queries'
import { untoned } from '#core/drawing/inks'
import type { RegionHit } from '#core/ink/region-hits'
import type { Worktop } from '~/instruments/instrument'
import { isIn } from '~/instruments/pour'
import { addedTrims } from '~/instruments/trim'
import { useDrawingStore } from '~/stores/drawing'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useStudioStore } from '~/stores/studio'
import { islandsOfResult, islandUnder } from './islands'
import type { Ink } from './use-ink'

/** What sticks into a region is cleared away up to so many of its line's sizes. */
const STICKS = 6

type Fills = Pick<Worktop, 'nextInk' | 'inkInHand' | 'takeInk' | 'stepInk' | 'inkAt' | 'palette' | 'colourOf' | 'regionAt' | 'emptyRegions' | 'bridges' | 'clearInside'>

/** What instruments see of inks and regions. */
export function fillsOfWorktop(ink: Ink, bridges: Readonly<Ref<readonly Path[]>>): Fills {
  const store = useDrawingStore()
  const hand = useInkInHand()
  const { preferences } = useStudioStore()
  const drawing = (): Drawing => store.drawing!
  const gap = (): number => preferences.fill.gap * drawing().page.pxPerMm

  /** Pieces of other lines that stick into a region beyond the lines that bound it. */
  async function clearInside(regions: readonly RegionHit[]): Promise<void> {
    const bounded = regions.filter((r) => r.hold.length)
    const bounds = [...new Set(bounded.flatMap((r) => r.hold.map((h) => h.line)))]
    if (!bounds.length) return
    const pieces = await ink.session.beyond(drawing(), bounds, STICKS)
    const inside = pieces.filter((p) => bounded.some((r) => isIn(r, middleOf(p.contours))))
    if (inside.length) store.edit(inside.length > 1 ? `Clear ${inside.length} pieces away` : 'Clear a piece away', (draft) => void (draft.amendments = [...(draft.amendments ?? []), ...addedTrims(inside)]))
  }

  return {
    nextInk: () => hand.lineInk,
    inkInHand: () => hand.id,
    takeInk: hand.take,
    stepInk: hand.step,
    inkAt: (p) => {
      const island = islandUnder(islandsOfResult(ink.shapes.value), p)
      return island && untoned(island.shape.ink).ink
    },
    palette: () => {
      const ofLines = new Set(linesOf(drawing()).map((l) => l.ink))
      return drawing().inks.map((i) => i.id).filter((id) => !ofLines.has(id))
    },
    colourOf: (id) => colourOf(drawing(), id),
    regionAt: (p) => ink.session.regionAt(drawing(), p, gap()),
    emptyRegions: () => ink.session.emptyRegions(drawing(), gap(), preferences.fill.least * drawing().page.pxPerMm ** 2),
    bridges: () => bridges.value,
    clearInside,
  }
}

/** A point within contours, near the middle of what they bound. */
function middleOf(contours: readonly Path[]): Vec {
  const cubics = contours.map((c) => cubicsOfPath({ ...c, closed: true }))
  const points = contours.flatMap((c) => c.nodes.map((n) => n.at))
  const mean = { x: points.reduce((n, p) => n + p.x, 0) / points.length, y: points.reduce((n, p) => n + p.y, 0) / points.length }
  return windingAt(cubics, mean) !== 0 ? mean : points[0]!
}
