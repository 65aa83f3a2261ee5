import type { LinesLayer } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { arcOfPath, boxOfPath } from '#core/geometry/known'
import type { LineHit } from '#core/outline/hit-line'
import type { Worktop } from '~/instruments/worktop'
import { useOutlinesStore } from '~/stores/outlines'

/** The worktop at which nodes of derived outlines are edited: as the common one, but over the outlines. */
export function createOutlineWorktop(common: Worktop): Worktop {
  const outlines = useOutlinesStore()

  const contours = (): LinesLayer['items'] => (outlines.drawing.layers[0] as LinesLayer).items

  /** An outline is met on its edge only: its inside is ink. */
  function linesAt(p: Vec, reach: number): LineHit[] {
    const within = reach / common.zoom()
    const hits: LineHit[] = []
    for (const line of contours()) {
      const box = boxOfPath(line.path)
      if (p.x < box.minX - within || p.x > box.maxX + within || p.y < box.minY - within || p.y > box.maxY + within)
        continue
      const arc = arcOfPath(line.path)
      const near = arc.nearest(p)
      if (near.distance <= within)
        hits.push({ line, at: near.length / (arc.total || 1), point: arc.point(near.length), distance: near.distance })
    }
    return hits.sort((a, b) => a.distance - b.distance)
  }

  return {
    ...common,
    drawing: () => outlines.drawing,
    selection: () => outlines.selection,
    select: (ids) => {
      outlines.selection = [...ids]
      outlines.nodes = outlines.nodes.filter((n) => ids.includes(n.line))
    },
    nodes: () => outlines.nodes,
    chooseNodes: (nodes) => {
      outlines.nodes = [...nodes]
    },
    change: outlines.change,
    finish: outlines.finish,
    drop: outlines.drop,
    edit: outlines.edit,
    lineAt: (p, reach) => linesAt(p, reach)[0] ?? null,
    linesAt,
    allLines: contours,
    asSeen: (line) => line,
  }
}
