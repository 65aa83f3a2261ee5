import type { Drawing } from '../model/model'
import { linesOf } from '../model/queries'
import { outsidesOf } from '../relations/outside'
import { withCopies } from '../repetition/with-copies'
import { litLine } from '../weight/light'

/**
 * `after` with its lines under the light that follows edits, if there is one. The lines before the edit tell whether
 * anything changed that the light heeds. Which side of a line is outside is told by all that stands on the page.
 */
export function withLightSettled(before: Drawing, after: Drawing): Drawing {
  const rule = after.settings.light
  if (!rule?.live || before === after || (before.layers === after.layers && before.settings.light === rule))
    return after
  const outsides = outsidesOf(linesOf(withCopies(after)))
  return {
    ...after,
    layers: after.layers.map((layer) => {
      if (layer.kind !== 'lines' || layer.locked) return layer
      const items = layer.items.map((l) => (l.locked ? l : litLine(l, outsides.get(l.id) ?? null, rule)))
      return items.every((l, i) => l === layer.items[i]) ? layer : { ...layer, items }
    }),
  }
}
