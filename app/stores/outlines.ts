import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Recipe } from '#core/document/edits'
import { changed } from '#core/document/edits'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line, LinesLayer, Retouch, Shape } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { linesOf } from '#core/model/queries'
import { shapeSettingsOf } from '#core/model/fineness'
import { overlap } from '#core/geometry/bounds'
import { boxOfPath } from '#core/geometry/known'
import { retouchesBetween, retouchOn, wantsCut } from '#core/shapes/retouch'
import { useDrawingStore } from './drawing'
import type { NodeRef } from '~/instruments/worktop'

const contoursIn = (drawing: Drawing): LinesLayer['items'] => (drawing.layers[0] as LinesLayer).items

/**
 * The derived outlines as something whose nodes can be edited: each contour stands as a closed line in a drawing of its
 * own. What is edited there becomes retouches of the real drawing, which are put on whenever the outlines are made.
 */
export const useOutlinesStore = defineStore('outlines', () => {
  const store = useDrawingStore()
  const drawing = shallowRef<Drawing>(newDrawing('Outlines'))
  const selection = ref<string[]>([])
  const nodes = ref<NodeRef[]>([])
  let base: Drawing | null = null
  /** By contour as a line, the contour. */
  const made = new WeakMap<Line, Path>()
  /** By contour's id, what it came from. */
  let from = new Map<string, readonly string[]>()

  function lineOf(id: string, contour: Path, ink: string): Line {
    const line = newLine({ ...contour, closed: true }, { id, ink })
    made.set(line, contour)
    return line
  }

  /** New outlines have been made: what was chosen of the old ones stays chosen as far as it is there. */
  function show(shapes: readonly Shape[]): void {
    base = null
    const before = new Map(contoursIn(drawing.value).map((l) => [l.id, l]))
    const items = shapes.flatMap((s) =>
      s.contours.map((c, i) => {
        const id = `${s.id}#${i}`
        const was = before.get(id)
        return was && made.get(was) === c ? was : lineOf(id, c, s.ink)
      }),
    )
    from = new Map(shapes.flatMap((s) => s.contours.map((_, i) => [`${s.id}#${i}`, s.from] as const)))
    drawing.value = newDrawing('Outlines', { layers: [newLinesLayer('Outlines', items)] })
    const count = new Map(items.map((l) => [l.id, l.path.nodes.length]))
    selection.value = selection.value.filter((id) => count.has(id))
    nodes.value = nodes.value.filter((n) => n.index < (count.get(n.line) ?? 0))
  }

  /** The lines of the drawing that a contour came from. */
  function linesUnder(contour: Line): Line[] {
    const ids = new Set(from.get(contour.id))
    return linesOf(store.drawing!).filter((l) => ids.has(l.id))
  }

  function change(recipe: Recipe): void {
    base ??= drawing.value
    drawing.value = changed(base, recipe)
  }

  function drop(): void {
    if (base) drawing.value = base
    base = null
  }

  function finish(label: string): void {
    if (!base) return
    const [was, is] = [contoursIn(base), contoursIn(drawing.value)]
    const now = new Map(is.map((l) => [l.id, l.path]))
    const fresh = was.flatMap((l) => retouchesBetween([l.path], [now.get(l.id) ?? l.path], linesUnder(l)))
    if (fresh.length) fresh.push(...cutsAfter(was, is))
    base = null
    if (!fresh.length) return
    store.edit(label, (draft) => {
      draft.amendments = [...(draft.amendments ?? []), ...fresh]
    })
  }

  /** Where nodes were dragged across the outline of their own shape, that is cut. */
  function cutsAfter(was: readonly Line[], is: readonly Line[]): Retouch[] {
    const changedLines = is.filter((l, i) => l.path !== was[i]?.path)
    const { tolerance } = shapeSettingsOf(store.drawing!)
    return changedLines.flatMap((line): Retouch[] => {
      const shape = line.id.slice(0, line.id.lastIndexOf('#'))
      const box = boxOfPath(line.path)
      const near = is.filter((l) => l.id.startsWith(`${shape}#`) && overlap(boxOfPath(l.path), box))
      return wantsCut(
        near.map((l) => l.path),
        tolerance,
      )
        ? [retouchOn(linesUnder(line), { at: line.path.nodes[0]!.at, to: 'cut' })]
        : []
    })
  }

  function edit(label: string, recipe: Recipe): void {
    change(recipe)
    finish(label)
  }

  return { drawing, selection, nodes, show, change, drop, finish, edit }
})
