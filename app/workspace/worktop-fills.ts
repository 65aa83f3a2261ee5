import type { Ref } from 'vue'
import type { Drawing } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { colourOf, linesOf } from '#core/model/queries'
import { untoned } from '#core/model/inks'
import { LIMITS } from '#core/proof/finding'
import type { RegionHit } from '#core/ink/session/region-hits'
import type { Fills } from '~/instruments/worktop'
import { addedTrims } from '~/instruments/trim'
import { useDrawingStore } from '~/stores/drawing'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useStudioStore } from '~/stores/studio'
import { islandUnder } from './islands'
import type { Ink } from './use-ink'
import { useStarterInks } from './use-starter-inks'

/** What sticks into a region is cleared away up to so many of its line's sizes. */
const STICKS = 6

/** What instruments see of inks and regions. */
export function fillsOfWorktop(ink: Ink, bridges: Readonly<Ref<readonly Path[]>>): Fills {
  const store = useDrawingStore()
  const hand = useInkInHand()
  const starter = useStarterInks()
  const { preferences } = useStudioStore()
  const drawing = (): Drawing => store.drawing!
  const gap = (): number => preferences.fill.gap * drawing().page.pxPerMm

  /** Trims loose ends that stick into regions beyond the lines that bound these, and specks in them. */
  async function clearInside(regions: readonly RegionHit[]): Promise<void> {
    const now = drawing()
    const least = (now.settings.proof?.speck ?? LIMITS.speck) * now.page.pxPerMm ** 2
    const bounded = regions.flatMap((r) =>
      r.where === 'region' && r.hold.length ? [{ outer: r.outer, hold: r.hold }] : [],
    )
    const pieces = bounded.length ? await ink.session.ask(now, 'litter', bounded, { most: STICKS, least }) : []
    if (pieces.length)
      store.edit(
        pieces.length > 1 ? `Clear ${pieces.length} pieces away` : 'Clear a piece away',
        (draft) => void (draft.amendments = [...(draft.amendments ?? []), ...addedTrims(pieces)]),
      )
  }

  return {
    inkInHand: () => hand.id,
    takeInk: hand.take,
    stepInk: hand.step,
    inkAt: (p) => {
      const island = islandUnder(ink.islands(), p)
      return island && untoned(island.shape.ink).ink
    },
    palette: () => {
      const ofLines = new Set(linesOf(drawing()).map((l) => l.ink))
      return drawing()
        .inks.map((i) => i.id)
        .filter((id) => !ofLines.has(id))
    },
    takeStarterInks: starter.take,
    colourOf: (id) => colourOf(drawing(), id),
    regionAt: (p) => ink.session.ask(drawing(), 'regionAt', p, gap()),
    emptyRegions: () =>
      ink.session.ask(drawing(), 'emptyRegions', gap(), preferences.fill.least * drawing().page.pxPerMm ** 2),
    bridges: () => bridges.value,
    clearInside,
  }
}
