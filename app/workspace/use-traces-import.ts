import type { Line, Page, PenTrace, TraceSample } from '#core/model/model'
import { newLine } from '#core/model/create'
import { layerForLine } from '#core/model/queries'
import { lineFromTrace } from '#core/fit/line-from-trace'
import { parseInkml } from '#core/formats/inkml/parse-inkml'
import { boxOfPoints } from '#core/geometry/bounds'
import { handOf } from '~/instruments/preferences'
import { useDrawingStore } from '~/stores/drawing'
import { findLayer } from '#core/model/find'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'

/** Larger files are refused before they are read, bytes. */
const LARGEST = 32 * 1024 * 1024
/** Traces with more points than this are refused: a line keeps no more. */
const MOST_SAMPLES = 50_000

export const isInkml = (file: File): boolean =>
  /\.(inkml|ink)$/i.test(file.name) || file.type === 'application/inkml+xml'

/** The traces of an InkML file.
 * @throws Error with a sentence for people */
export async function readTraces(file: File): Promise<TraceSample[][]> {
  if (file.size > LARGEST) throw new Error(`"${file.name}" is larger than 32 MB. Export fewer traces and try again.`)
  const traces = parseInkml(await file.text())
  const long = traces.find((t) => t.length > MOST_SAMPLES)
  if (long)
    throw new Error(
      `A trace in "${file.name}" has ${long.length} points, and a line keeps ${MOST_SAMPLES} at most. Split it and try again.`,
    )
  return traces
}

/** Brings pen traces from a file into the open drawing as lines. */
export function useTracesImport(): (file: File) => Promise<void> {
  const store = useDrawingStore()
  const view = useViewStore()
  const studio = useStudioStore()

  function lineOf(samples: TraceSample[]): Line {
    const trace: PenTrace = { samples, device: 'pen', ...handOf(studio.preferences) }
    const { path, weight } = lineFromTrace(trace, studio.nextWeight(), studio.preferences.pressure)
    return newLine(path, { trace, weight })
  }

  return async (file) => {
    const layer = store.drawing ? (layerForLine(store.drawing, view.activeLayer)?.id ?? null) : null
    if (!layer) {
      store.notice =
        'No layer is open for lines. Add one with + in Layers, or unlock or show one, and drop the file again.'
      return
    }
    try {
      const all = onPage(await readTraces(file), store.drawing!.page)
      const lines = all.filter((t) => t.length > 1).map(lineOf)
      const short = all.length - lines.length
      const left = short
        ? ` ${short === 1 ? 'One trace has' : `${short} traces have`} a single point and ${short === 1 ? 'was' : 'were'} left out.`
        : ''
      if (!lines.length) throw new Error(`"${file.name}" holds no trace that could be a line.${left}`)
      store.edit(lines.length > 1 ? `Bring in ${lines.length} pen traces` : 'Bring in a pen trace', (draft) => {
        findLayer(draft, layer)?.items.push(...lines)
      })
      view.select(lines.map((l) => l.id))
      store.notice = `${lines.length === 1 ? 'One line was' : `${lines.length} lines were`} drawn from "${file.name}".${left}`
    } catch (e) {
      store.notice = (e as Error).message
    }
  }
}

/** The traces as they are where they lie on the page, else moved and scaled to lie on it with a margin. */
function onPage(traces: readonly TraceSample[][], { width, height }: Page): TraceSample[][] {
  const box = boxOfPoints(traces.flat())
  if (box.minX >= 0 && box.minY >= 0 && box.maxX <= width && box.maxY <= height) return traces.map((t) => [...t])
  const margin = 0.05 * Math.min(width, height)
  const k = Math.min(
    (width - 2 * margin) / (box.maxX - box.minX || 1),
    (height - 2 * margin) / (box.maxY - box.minY || 1),
  )
  const [mx, my] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2]
  return traces.map((t) => t.map((s) => ({ ...s, x: width / 2 + (s.x - mx) * k, y: height / 2 + (s.y - my) * k })))
}
