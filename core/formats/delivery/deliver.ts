import { seenLines } from '../../model/queries'
import { shapeSettingsOf } from '../../model/fineness'
import { isKept, wholeTrace } from '../../model/line-trace'
import type { Drawing, PenTrace, Shape, TraceSample } from '../../model/model'
import { openInk } from '../../ink/open-ink'
import { atOnce } from '../../turns'
import { knockedOutShapes } from '../../ink/fills/knockout'
import { zipOf } from '../archive/zip'
import { fileNameOf } from '../file-name'
import { writeInkml } from '../inkml/write-inkml'
import { writeSvg } from '../svg/write-svg'
import { withWholeTraces } from '../../document/traces-apart'
import type { PictureSize } from './picture-size'
import { pictureSize } from './picture-size'
import type { DeliveryKind, DeliverySettings } from './settings'

export interface DeliveredFile {
  name: string
  mediaType: string
  bytes: Uint8Array
}

/** What is drawn for a picture. */
export interface PictureOrder extends PictureSize {
  shapes: readonly Shape[]
  drawing: Drawing
  /** #rrggbb, or null for clear ground. */
  ground: string | null
  tones: DeliverySettings['picture']['tones']
}

/** What delivering needs from where it runs. */
export interface Deliverer {
  /** Draws a PNG. */
  picture: (order: PictureOrder) => Promise<Uint8Array>
  samplesOf: (hash: string) => readonly TraceSample[] | undefined
}

/** What is asked for is not there. */
class NothingToDeliver extends Error {}

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text)

/** Pen traces of a drawing's visible lines, with their samples. */
export function tracesOf(drawing: Drawing, samplesOf: Deliverer['samplesOf']): PenTrace[] {
  return seenLines(drawing).flatMap(({ trace }) => {
    if (!trace) return []
    if (!isKept(trace)) return [trace]
    const samples = samplesOf(trace.of)
    return samples ? [wholeTrace(trace, samples)] : []
  })
}

/** The SVG of outlines as settings have it. */
export const outlinesOf = (
  drawing: Drawing,
  shapes: readonly Shape[],
  { leaving, svg, ground }: DeliverySettings,
): { svg: string; shapes: Shape[] } => {
  const own = svg.groups === 'layer' && leaving !== 'one' ? atOnce(openInk(drawing).shapesInLayers()).shapes : shapes
  const left = knockedOutShapes(own, drawing.inks, leaving, shapeSettingsOf(drawing))
  return { svg: writeSvg(drawing, { content: 'outlines', shapes: left, ...svg, ground }), shapes: left }
}

/**
 * The file of a drawing as settings have it; `shapes` are what is derived from it.
 *
 * @throws NothingToDeliver where there are no traces; InputError for impossible settings
 */
export async function deliverable(
  drawing: Drawing,
  shapes: readonly Shape[],
  settings: DeliverySettings,
  by: Deliverer,
): Promise<DeliveredFile> {
  const base = fileNameOf(drawing.name)
  if (settings.kind !== 'all') return one(settings.kind, base, drawing, shapes, settings, by)
  const kinds: DeliveryKind[] = [
    'outlines',
    'lines',
    'pdf',
    'picture',
    ...(tracesOf(drawing, by.samplesOf).length ? (['traces'] as const) : []),
  ]
  const files: DeliveredFile[] = []
  for (const kind of kinds) files.push(await one(kind, base, drawing, shapes, settings, by))
  const archive = zipOf(
    files.map(({ name, bytes, mediaType }) => ({ path: name, bytes, packed: mediaType === 'image/png' })),
  )
  return { name: `${base}.zip`, mediaType: 'application/zip', bytes: archive }
}

async function one(
  kind: DeliveryKind,
  base: string,
  drawing: Drawing,
  shapes: readonly Shape[],
  settings: DeliverySettings,
  by: Deliverer,
): Promise<DeliveredFile> {
  switch (kind) {
    case 'pdf': {
      // What writes it is large, and read only when one is asked for.
      const { writePdf } = await import('../pdf/write-pdf')
      const { tolerance } = shapeSettingsOf(drawing)
      const left = settings.pdf.separate
        ? shapes
        : knockedOutShapes(shapes, drawing.inks, settings.leaving, { tolerance })
      return {
        name: `${base}.pdf`,
        mediaType: 'application/pdf',
        bytes: await writePdf(drawing, { ...settings.pdf, shapes: left, tolerance }),
      }
    }
    case 'lines':
      return {
        name: `${base}.live.svg`,
        mediaType: 'image/svg+xml',
        bytes: bytesOf(writeSvg(withWholeTraces(drawing, by.samplesOf), { content: 'lines' })),
      }
    case 'picture': {
      const { tones } = settings.picture
      return {
        name: `${base}.png`,
        mediaType: 'image/png',
        bytes: await by.picture({
          ...pictureSize(drawing.page, settings.picture),
          shapes: knockedOutShapes(shapes, drawing.inks, settings.leaving, shapeSettingsOf(drawing)),
          drawing,
          ground: settings.ground,
          tones,
        }),
      }
    }
    case 'traces': {
      const traces = tracesOf(drawing, by.samplesOf)
      if (!traces.length) throw new NothingToDeliver(`No line of "${drawing.name}" keeps a pen trace.`)
      return { name: `${base}.inkml`, mediaType: 'application/inkml+xml', bytes: bytesOf(writeInkml(traces)) }
    }
    default:
      return {
        name: `${base}.svg`,
        mediaType: 'image/svg+xml',
        bytes: bytesOf(outlinesOf(drawing, shapes, settings).svg),
      }
  }
}
