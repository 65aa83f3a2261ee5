import { computed } from 'vue'
import type { Drawing } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { boxOfPoints } from '#core/geometry/bounds'
import type { HandleKind } from '#core/geometry/node-kinds'
import { handleKindOf, withHandleKind } from '#core/geometry/node-kinds'
import type { Alignment } from '#core/geometry/node-sets'
import { aligning, spacing } from '#core/geometry/node-sets'
import { changeNodes, mapNodes, placesOf } from '~/instruments/chosen-nodes'
import type { NodeRef } from '~/instruments/worktop'

/** What nodes are chosen of, and how it is edited: the lines, or the derived outlines. */
export interface NodeSurface {
  drawing: Drawing | null
  nodes: readonly NodeRef[]
  edit: (label: string, recipe: (draft: Drawing) => void) => void
}

/** The chosen nodes of a surface, and what can be done to them in one step of the history. */
export function useChosenNodes(surface: NodeSurface) {
  const places = computed(() => (surface.drawing ? placesOf(surface.drawing, surface.nodes) : []))

  /** How their handles go together, where all agree. */
  const handles = computed<HandleKind | null>(() => {
    const kinds = new Set(places.value.map(({ node, line }) => handleKindOf(line.path.nodes[node.index]!)))
    return kinds.size === 1 ? [...kinds][0]! : null
  })

  /** Where they are: the one node, or the middle of several. */
  const at = computed<Vec | null>(() => {
    if (!places.value.length) return null
    const box = boxOfPoints(places.value.map((p) => p.at))
    return { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
  })

  const edit = (label: string, recipe: (draft: Drawing) => void): void => surface.edit(label, recipe)

  function setHandles(kind: HandleKind): void {
    const { nodes } = surface
    edit(`Handles ${kind}`, (draft) =>
      changeNodes(draft, nodes, (path, chosen) => [...chosen].reduce((p, i) => withHandleKind(p, i, kind), path)),
    )
  }

  function moveBy(label: string, d: Vec): void {
    const { nodes } = surface
    if (d.x || d.y) edit(label, (draft) => mapNodes(draft, nodes, (p) => ({ x: p.x + d.x, y: p.y + d.y })))
  }

  const moveTo = (k: 'x' | 'y', value: number): void => {
    if (at.value) moveBy(`Move to ${k} ${value}`, { x: 0, y: 0, [k]: value - at.value[k] })
  }

  /** Moves each node, with its handles, by a step of its own. */
  function step(label: string, steps: (points: Vec[]) => Vec[]): void {
    const now = places.value
    const by = steps(now.map((p) => p.at))
    edit(label, (draft) =>
      now.forEach(({ node }, i) => mapNodes(draft, [node], (p) => ({ x: p.x + by[i]!.x, y: p.y + by[i]!.y }))),
    )
  }

  const align = (to: Alignment): void => step('Align nodes', (points) => aligning(points, to))
  const space = (k: 'x' | 'y'): void => step('Space nodes', (points) => spacing(points, k))

  function flip(k: 'x' | 'y'): void {
    const middle = at.value
    const { nodes } = surface
    if (middle) edit('Flip nodes', (draft) => mapNodes(draft, nodes, (p) => ({ ...p, [k]: 2 * middle[k] - p[k] })))
  }

  return { places, handles, at, setHandles, moveTo, align, space, flip }
}
