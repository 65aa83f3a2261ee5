import { originOf } from '../../model/image-ids'
import type { Drawing, Shape } from '../../model/model'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'

/** Shapes that lie next to each other in the stack and belong together; `id` is a name, or one with a number behind it. */
export interface ShapeGroup {
  id: string
  shapes: Shape[]
}

/**
 * Shapes, bottom to top, in groups by the layer of what they came from, or by ink. What is seen never changes: where something of
 * another group lies between, the group is begun anew.
 */
export function shapeGroups(shapes: readonly Shape[], drawing: Drawing, by: 'layer' | 'ink'): ShapeGroup[] {
  const layerOf = new Map(drawing.layers.flatMap((l) => l.items.map((i) => [i.id, l.name] as const)))
  const inkNames = new Map(drawing.inks.map((i) => [i.id, i.name]))
  const nameOf = (s: Shape): string => (by === 'ink' ? (inkNames.get(s.ink) ?? s.ink) : (layerNamed(s) ?? 'Fills'))
  const layerNamed = (s: Shape): string | undefined =>
    layerOf.get(s.id) ?? s.from.map((id) => layerOf.get(originOf(id))).find((n) => n !== undefined)
  const groups: ShapeGroup[] = []
  const times = new Map<string, number>()
  let last = ''
  for (const shape of shapes) {
    // As an id it has no spaces.
    const name = nameOf(shape).trim().replace(/\s+/g, '-')
    if (name !== last) {
      const n = (times.get(name) ?? 0) + 1
      times.set(name, n)
      groups.push({ id: n === 1 ? name : `${name}-${n}`, shapes: [] })
      last = name
    }
    groups.at(-1)!.shapes.push(shape)
  }
  return groups
}

/** A shape with all its coordinates times `k`. */
export function scaledShape(shape: Shape, k: number): Shape {
  if (k === 1) return shape
  const at = (p: Vec): Vec => ({ x: p.x * k, y: p.y * k })
  return {
    ...shape,
    contours: shape.contours.map((c): Path => ({
      ...c,
      nodes: c.nodes.map((n) => ({ ...n, at: at(n.at), in: n.in && at(n.in), out: n.out && at(n.out) })),
    })),
  }
}
