import type { TurnedBack } from './line-from-outline'
import { newId } from '../new-id'
import { newLine, newLinesLayer } from '../model/create'
import { freeLayerName } from '../editing/layers'
import type { Drawing, Line, Shape } from '../model/model'

/** The lines of which a solid was made, by the solid's id. */
export type TurnedLines = ReadonlyMap<string, readonly TurnedBack['line'][]>

/**
 * Puts lines in place of solids. Those of a layer come onto a layer of lines of their own, right above it and in the order of
 * the solids; a layer that is left without any goes. Answers the ids of the lines.
 */
export function turnBack(draft: Drawing, turned: TurnedLines): string[] {
  const made: string[] = []
  draft.layers = draft.layers.flatMap((layer) => {
    if (layer.kind === 'lines' || layer.kind === 'sketch' || !layer.items.some((i) => turned.has(i.id))) return [layer]
    const lines = layer.items.flatMap((solid: Shape): Line[] =>
      (turned.get(solid.id) ?? []).map((line) => newLine(line.path, { ...line, id: newId(), ink: solid.ink })),
    )
    made.push(...lines.map((l) => l.id))
    const rest = layer.items.filter((i) => !turned.has(i.id))
    const above = {
      ...newLinesLayer(rest.length ? freeLayerName(draft, `${layer.name} lines`) : layer.name, lines),
      opacity: layer.opacity,
    }
    return rest.length ? [{ ...layer, items: rest }, above] : [above]
  })
  return made
}
