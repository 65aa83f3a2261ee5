import { newDrawing, newLinesLayer } from '#core/model/create'
import { makeEdit } from '#core/document/edits'
import type { Drawing, Fill, Line } from '#core/model/model'
import { openInk } from '../core/ink/open-ink'
import { emptyRegions, regionHitAt } from '#core/ink/session/region-hits'
import { atOnce } from '../core/turns'
import { change, pageFor } from './ink'
import { seeded, strokes } from './strokes'

/** What regions and fills cost, ms. */
export interface RegionRow {
  lines: number
  regions: number
  fills: number
  /** Regions of a drawing whose ink is united already, gaps bridged. */
  first: number
  /** The region under the pointer. */
  preview: number
  previewP95: number
  /** One line changed, from the patch to the shapes of all fills. */
  median: number
  p95: number
}

const EDITS = 40
const PLACES = 200
/** Gaps up to this are bridged, px. */
const GAP = 2
const LEAST = 4

export const regionRows = (sizes = [60, 2000]): RegionRow[] => sizes.map(regionRow)

function regionRow(lines: number): RegionRow {
  const blank = newDrawing('Bench', { layers: [newLinesLayer('Ink', strokes(lines))] })
  const plain: Drawing = {
    ...blank,
    page: pageFor(lines),
    inks: [...blank.inks, { id: 'leaf', name: 'Leaf', colour: '#8fae6b' }],
  }
  const session = openInk(plain)
  atOnce(session.shapes())
  const began = performance.now()
  atOnce(session.paper(GAP))
  const first = performance.now() - began
  const r = seeded(4)
  const looks = Array.from({ length: PLACES }, () => {
    const start = performance.now()
    atOnce(regionHitAt(session, { x: r() * plain.page.width, y: r() * plain.page.height }, GAP))
    return performance.now() - start
  })
  const { regions } = atOnce(emptyRegions(session, GAP, LEAST))
  const fills = regions.map((hit, i): Fill => ({
    id: `f${i}`,
    ink: 'leaf',
    where: 'region',
    at: { x: 0, y: 0 },
    hold: hit.hold,
    gap: GAP / plain.page.pxPerMm,
  }))
  let drawing: Drawing = { ...plain, fills }
  const poured = openInk(drawing)
  atOnce(poured.fills())
  const times: number[] = []
  for (let i = 0; i < EDITS; i++) {
    const { drawing: next, edit } = makeEdit(drawing, 'One line', (draft) =>
      change((draft.layers[0]!.items as Line[])[Math.floor(r() * lines)]!, r),
    )!
    drawing = next
    const start = performance.now()
    poured.apply(edit.patches)
    atOnce(poured.fills())
    // The first few still warm up.
    if (i >= 8) times.push(performance.now() - start)
  }
  const at = (all: number[], share: number): number => all.sort((a, b) => a - b)[Math.floor(all.length * share)]!
  return {
    lines,
    regions: atOnce(session.paper(GAP)).index.faces.length,
    fills: fills.length,
    first,
    preview: at(looks, 0.5),
    previewP95: at(looks, 0.95),
    median: at(times, 0.5),
    p95: at(times, 0.95),
  }
}
