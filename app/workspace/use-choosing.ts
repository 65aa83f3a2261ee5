import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { openLineLayers } from '#core/model/queries'
import { arcOfPath, boxOfPath } from '#core/geometry/known'
import { short } from '#core/geometry/path'
import { toPage, toScreen } from '~/canvas/viewport'
import { toggled } from '~/instruments/instrument'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

const DIRECTIONS: Record<string, Vec> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
}

/** A line lies the farther off the more it lies to the side of where an arrow points. */
const SIDEWAYS = 2.5

/** Lines chosen by keys: along the stack, or the nearest in a direction; each is told by name. */
export function useChoosing(): {
  step: (by: 1 | -1, add: boolean) => boolean
  towards: (key: string, add: boolean) => boolean
} {
  const store = useDrawingStore()
  const view = useViewStore()

  const open = (): { line: Line; layer: string }[] =>
    openLineLayers(store.drawing!, view.alone).flatMap((l) => l.items.map((line) => ({ line, layer: l.name })))

  function choose(id: string, add: boolean): boolean {
    const all = open()
    view.select(
      add
        ? [
            id,
            ...toggled(
              view.selection.filter((s) => s !== id),
              id,
            ).filter((s) => s !== id),
          ]
        : [id],
    )
    const at = all.findIndex((o) => o.line.id === id)
    const { line, layer } = all[at]!
    const few = view.selection.length > 1 ? `, ${view.selection.length} lines chosen` : ''
    view.spoken = `Line ${at + 1} of ${all.length} on ${layer}, ${short(arcOfPath(line.path).total, 0)} px long, size ${short(line.weight.size, 1)}${few}`
    bringIntoView(line)
    return true
  }

  /** The page is moved as far as it takes to see the line. */
  function bringIntoView(line: Line): void {
    const box = boxOfPath(line.path)
    const p = toScreen(view.viewport, { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 })
    if (p.x < 0 || p.y < 0 || p.x > view.size.width || p.y > view.size.height) view.centreOn(toPage(view.viewport, p))
  }

  function step(by: 1 | -1, add: boolean): boolean {
    const all = open()
    if (!all.length) {
      view.spoken = 'There is no line that can be chosen'
      return true
    }
    const now = all.findIndex((o) => o.line.id === view.selection[0])
    const next = now < 0 ? (by > 0 ? 0 : all.length - 1) : (now + by + all.length) % all.length
    return choose(all[next]!.line.id, add)
  }

  const middleOf = (line: Line): Vec => {
    const arc = arcOfPath(line.path)
    return toScreen(view.viewport, arc.point(arc.total / 2))
  }

  function towards(key: string, add: boolean): boolean {
    const direction = DIRECTIONS[key]
    if (!direction) return false
    const all = open()
    const current = all.find((o) => o.line.id === view.selection[0])
    const from = current ? middleOf(current.line) : { x: view.size.width / 2, y: view.size.height / 2 }
    let best: { id: string; off: number } | null = null
    for (const { line } of all) {
      if (line === current?.line) continue
      const p = middleOf(line)
      const [dx, dy] = [p.x - from.x, p.y - from.y]
      const ahead = dx * direction.x + dy * direction.y
      if (current && ahead <= 0) continue
      const off = current ? ahead + SIDEWAYS * Math.abs(dx * direction.y - dy * direction.x) : Math.hypot(dx, dy)
      if (!best || off < best.off) best = { id: line.id, off }
    }
    if (best) return choose(best.id, add)
    view.spoken = all.length ? 'No line lies farther that way' : 'There is no line that can be chosen'
    return true
  }

  return { step, towards }
}
