import { isDraft } from 'immer'
import { remembered } from '../remembered'
import { colourIn } from './inks'
import type { Drawing, Layer, Line, LinesLayer, Shape, ShapesLayer } from './model'

type Layers = Pick<Drawing, 'layers'>

/** Keeps what is worked out of a list for as long as that is the same; of one that may still change, nothing. */
function kept<T>(work: (items: readonly T[]) => readonly T[]): (items: readonly T[]) => readonly T[] {
  const known = remembered(work)
  return (items) => (isDraft(items) || !Object.isFrozen(items) ? work(items) : known(items))
}

/** Whether a layer is to be seen: it is visible, and not left out because another is looked at alone. */
export const isSeen = (layer: Pick<Layer, 'id' | 'visible'>, alone: string | null): boolean =>
  layer.visible && (alone === null || layer.id === alone)

/** Whether a hand may take what a layer holds: it is seen and not locked. */
export const isOpen = (layer: Pick<Layer, 'id' | 'visible' | 'locked'>, alone: string | null): boolean =>
  isSeen(layer, alone) && !layer.locked

/** Lines of a layer but those hidden alone; the very list where none is. */
const unhidden = kept((items: readonly Line[]): readonly Line[] =>
  items.some((l) => l.hidden) ? items.filter((l) => !l.hidden) : items,
)
/** Those of them that no lock of their own keeps from the hand. */
const takeable = kept((items: readonly Line[]): readonly Line[] =>
  items.some((l) => l.hidden ?? l.locked) ? items.filter((l) => !l.hidden && !l.locked) : items,
)

/** What a layer shows of its lines or solids, bottom to top; nothing while it is hidden. */
export function shownItems(layer: LinesLayer): readonly Line[]
export function shownItems(layer: Layer): readonly (Line | Shape)[]
export function shownItems(layer: Layer): readonly (Line | Shape)[] {
  if (!layer.visible || layer.kind === 'sketch') return []
  return layer.kind === 'lines' ? unhidden(layer.items) : layer.items
}

const ofLines = (l: Layer): l is LinesLayer => l.kind === 'lines'
const ofSolids = (l: Layer): l is ShapesLayer => l.kind === 'shapes' || l.kind === 'fills'

const known = new WeakMap<readonly Layer[], readonly Line[]>()

/** All lines, bottom to top, seen or not; listed once for as long as the layers are the same, and cannot change. */
export function linesOf({ layers }: Layers): readonly Line[] {
  const of = layers.filter(ofLines)
  // Those of the only layer are listed already; copying thousands takes a good part of a frame.
  if (of.length === 1) return of[0]!.items
  if (isDraft(layers) || !Object.isFrozen(layers)) return itemsIn(of)
  let lines = known.get(layers)
  if (!lines) known.set(layers, (lines = itemsIn(of)))
  return lines
}

/** All that makes ink, bottom to top, seen or not. */
export const inkedItems = ({ layers }: Layers): readonly (Line | Shape)[] =>
  inOne(layers.filter((l) => ofLines(l) || ofSolids(l)).map((l) => l.items as readonly (Line | Shape)[]))

/** The items of layers in a row; the very list of a single one. */
const itemsIn = <T>(layers: readonly { items: T[] }[]): T[] => inOne(layers.map((l) => l.items)) as T[]

const inOne = <T>(lists: readonly (readonly T[])[]): readonly T[] =>
  lists.length === 1 ? lists[0]! : ([] as T[]).concat(...lists)

/** Layers of lines from the bottom of the stack to the top, as far as they are open; `alone` is the id of a layer looked at alone. */
export const openLineLayers = ({ layers }: Layers, alone: string | null = null): LinesLayer[] =>
  layers.filter(ofLines).filter((l) => isOpen(l, alone))
/** As `openLineLayers`, of solids. */
export const openSolidLayers = ({ layers }: Layers, alone: string | null = null): ShapesLayer[] =>
  layers.filter(ofSolids).filter((l) => isOpen(l, alone))

/** Lines, and solids, that a hand may take. */
export const openLines = (drawing: Layers, alone: string | null = null): readonly Line[] =>
  inOne(openLineLayers(drawing, alone).map((l) => takeable(l.items)))
/** Solids that a hand may take. */
export const openSolids = (drawing: Layers, alone: string | null = null): readonly Shape[] =>
  itemsIn(openSolidLayers(drawing, alone))

/** Lines that are seen, those of locked layers too. */
export const seenLines = ({ layers }: Layers, alone: string | null = null): readonly Line[] =>
  inOne(
    layers
      .filter(ofLines)
      .filter((l) => isSeen(l, alone))
      .map((l) => unhidden(l.items)),
  )

/** The layer that takes a new line: the first of those wished for that is open, else the topmost open one. */
export function layerForLine(drawing: Layers, ...wished: (string | null)[]): LinesLayer | null {
  const open = openLineLayers(drawing)
  return wished.map((id) => open.find((l) => l.id === id)).find((l) => l) ?? open.at(-1) ?? null
}

/** The drawing with others in the place of the lines and solids named; those of locked layers stay. */
export function itemsReplaced(
  drawing: Drawing,
  ids: Iterable<string>,
  change: (item: Line | Shape) => Line | Shape,
): Drawing {
  const named = new Set(ids)
  const layers = drawing.layers.map((layer): Layer => {
    if (layer.locked || layer.kind === 'sketch' || !layer.items.some((i) => named.has(i.id))) return layer
    const next = (i: Line | Shape): Line | Shape => (named.has(i.id) && !('locked' in i && i.locked) ? change(i) : i)
    return { ...layer, items: (layer.items as (Line | Shape)[]).map(next) } as Layer
  })
  return { ...drawing, layers }
}

/** The colour of an ink or of a tone of one, #rrggbb; black where there is no such ink. */
export const colourOf = ({ inks }: Pick<Drawing, 'inks'>, ink: string): string => colourIn(inks, ink)
