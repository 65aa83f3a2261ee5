import { defaultPage, newDrawing, newLinesLayer, newSketchLayer } from '#core/model/create'
import { newId } from '../core/new-id'
import type { Drawing, Fill } from '#core/model/model'
import { openInk } from '../core/ink/open-ink'
import { regionHitAt } from '#core/ink/session/region-hits'
import { atOnce } from '../core/turns'
import { findingsOf } from '../core/proof/findings-of'
import { mendAll } from '../core/proof/mend'
import { decideFronts } from '../core/editing/fronts'
import { overlapsOf } from '../core/ink/overlaps-of'
import { cloverAndBee } from './drawings/clover-and-bee'
import { gardenSnail } from './drawings/garden-snail'
import { peaPod } from './drawings/pea-pod'
import { isImage } from '../core/model/image-ids'
import { withCopies } from '../core/repetition/with-copies'
import { hedgeMoth } from './drawings/hedge-moth'
import { pottingBench } from './drawings/potting-bench'
import { radishBunch } from './drawings/radish-bunch'
import { wateringCan } from './drawings/watering-can'
import type { Inked } from './kit/inked'

/** Where the light of the coloured drawings stands, px, and how it falls on their fills. */
const LIGHT = { at: { x: 40, y: -60 }, strength: 0.6, softness: 0.6, live: false }
const LIT = { depth: 0.4, softness: 0.25, shade: 0.26, light: 0 }
/** Gaps up to so many mm were no hindrance. */
const GAP = 0.4

/** The drawings of the Thistlewick Seed Swap, each with the lines that its author laid. */
export const SCENARIO: readonly (() => Inked)[] = [
  radishBunch,
  peaPod,
  gardenSnail,
  wateringCan,
  cloverAndBee,
  pottingBench,
  hedgeMoth,
]

/** A document of one of the scenario's drawings over its pencil sketch. */
export function documentOf(
  { name, layers, fronts, mirrored, inks = [], fills = [] }: Inked,
  image: string | null,
): Drawing {
  const page = defaultPage()
  const blank = newDrawing(name, { page, layers: layers.map((l) => newLinesLayer(l.name, l.lines)) })
  // Leaves and pods run out to points.
  const drawing: Drawing = { ...blank, settings: { ...blank.settings, corner: 'pointed' } }
  if (mirrored !== undefined)
    drawing.amendments = [
      {
        id: newId(),
        kind: 'mirror',
        lines: layers.flatMap((l) => l.lines.map((i) => i.id)),
        from: { x: mirrored, y: 0 },
        to: { x: mirrored, y: page.height },
        fresh: true,
      },
    ]
  if (fronts)
    decideFronts(
      drawing,
      overlapsOf(withCopies({ ...drawing })).flatMap(({ forms: [below, above] }) =>
        [...below.lines, ...above.lines].some((l) => isImage(l.id))
          ? []
          : [{ form: above.lines.map((l) => l.id), to: below.lines.map((l) => l.id), choice: 'before' as const }],
      ),
    )
  // What is too thin for print is mended, and hairs of paper are closed, as its author would.
  mendAll(
    drawing,
    findingsOf(drawing).filter((f) => f.kind === 'thin' || f.kind === 'sliver'),
  )
  drawing.inks = [...drawing.inks, ...inks]
  if (fills.length) {
    drawing.settings = { ...drawing.settings, light: LIGHT }
    const session = openInk(drawing)
    drawing.fills = [
      ...(drawing.fills ?? []),
      ...fills.map(({ ink, at: [x, y], lit }): Fill => {
        const hit = atOnce(regionHitAt(session, { x, y }, GAP * page.pxPerMm))
        if (hit?.where !== 'region') throw new Error(`${name}: no region lies about ${x}, ${y}`)
        return { id: newId(), ink, where: 'region', at: { x, y }, hold: hit.hold, gap: GAP, ...(lit && { lit: LIT }) }
      }),
    ]
  }
  if (image)
    drawing.layers.unshift(
      newSketchLayer({ id: newId(), image, x: 0, y: 0, width: page.width, height: page.height, angle: 0 }),
    )
  return drawing
}
