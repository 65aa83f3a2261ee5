import { seenLines } from '#core/model/queries'
import type { ComputedRef } from 'vue'
import { computed } from 'vue'
import type { Drawing, Line } from '#core/model/model'
import { goingOneWay, joinedAll } from '#core/editing/join-all'
import { closedLine, joinedLines, reversedLine, splitLine } from '#core/editing/edit-line'
import type { Stretch } from '#core/editing/remade-lines'
import { cutAt, cutOpen, followRemade, joinedAs, turnedRound } from '#core/editing/remade-lines'
import type { End } from '#core/geometry/ends'
import { extendedPath, tuckedPath } from '#core/geometry/ends'
import { arcOfPath } from '#core/geometry/known'
import { short } from '#core/geometry/path'
import { nodesByLine, placesOf } from '~/instruments/chosen-nodes'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines } from '#core/editing/change-items'
import { repath } from '#core/editing/repath'
import { findLine, findOpenLine } from '#core/model/find'
import type { NodeRef } from '~/instruments/worktop'
import { useViewStore } from '~/stores/view'

/** How near a line must be for an end to be tucked under it, px or sizes of the line. */
const TUCK_PX = 12
const TUCK_SIZES = 2

interface ChosenEnd {
  line: Line
  end: End
}

/** What can be done to lines at their chosen nodes and ends. */
export function useEnds() {
  const store = useDrawingStore()
  const view = useViewStore()

  const places = computed(() => (store.drawing ? placesOf(store.drawing, view.nodes) : []))
  const edit = (label: string, recipe: (draft: Drawing) => void): void => store.edit(label, recipe)

  /** An edit that makes lines anew, whose recipe notes where they are then: what is known by places on them goes along. */
  const editRemade = (
    label: string,
    remade: ReadonlyMap<string, readonly Stretch[]>,
    recipe: (draft: Drawing) => void,
  ): void => {
    const before = store.drawing!
    edit(label, (draft) => {
      recipe(draft)
      followRemade(before, draft, remade)
    })
  }

  /** Those that are ends of open lines. */
  const ends: ComputedRef<ChosenEnd[]> = computed(() =>
    places.value.flatMap(({ node, line }): ChosenEnd[] => {
      if (line.path.closed) return []
      if (node.index === 0) return [{ line, end: 'first' }]
      return node.index === line.path.nodes.length - 1 ? [{ line, end: 'last' }] : []
    }),
  )

  function reverse(): void {
    const ids = view.selection
    const turned = new Map<string, Stretch[]>()
    editRemade(ids.length > 1 ? 'Turn lines round' : 'Turn the line round', turned, (draft) => {
      changeLines(draft, ids, (l) => {
        Object.assign(l, reversedLine(l))
        turned.set(l.id, turnedRound(l.id))
      })
    })
    const lengths = new Map(places.value.map(({ line }) => [line.id, line.path.nodes.length]))
    view.nodes = view.nodes.map((n) => ({ line: n.line, index: lengths.get(n.line)! - 1 - n.index }))
  }

  /** Cuts lines at their chosen inner nodes; opens closed ones there. */
  function split(): void {
    const byLine = nodesByLine(view.nodes)
    const fresh: string[] = []
    const remade = new Map<string, Stretch[]>()
    editRemade('Split', remade, (draft) => {
      for (const [id, indices] of byLine) {
        const found = findOpenLine(draft, id)
        if (!found) continue
        const { parts, stretches } = splitAt(found.line, [...indices])
        remade.set(id, stretches)
        found.layer.items.splice(found.index, 1, ...parts)
        fresh.push(...parts.map((p) => p.id))
      }
    })
    view.nodes = []
    if (fresh.length) view.select(fresh)
  }

  const others = (drawing: Drawing, id: string): Line[] => seenLines(drawing).filter((i) => i.id !== id)

  /** Works on each chosen end; says so where none could be done. */
  function onEnds(
    label: string,
    work: (line: Line, end: End, others: Line[]) => Line['path'] | null,
    failure: string,
  ): void {
    let done = 0
    const now = ends.value
    edit(label, (draft) => {
      for (const { line, end } of now) {
        changeLines(draft, [line.id], (l) => {
          const path = work(l, end, others(store.drawing!, l.id))
          if (!path) return
          repath(l, path, draft)
          done++
        })
      }
    })
    if (!done) store.notice = failure
    view.nodes = now.map(({ line, end }): NodeRef => ({
      line: line.id,
      index: end === 'first' ? 0 : findLine(store.drawing!, line.id)!.line.path.nodes.length - 1,
    }))
  }

  const extend = (): void =>
    onEnds(
      'Extend to the next line',
      (l, end, all) =>
        extendedPath(
          l.path,
          end,
          all.map((o) => o.path),
        ),
      'No line lies straight ahead of this end. Bend the line towards one, or drag the end there.',
    )

  const tuck = (): void =>
    onEnds(
      'Tuck under',
      (l, end, all) =>
        tuckedPath(
          l.path,
          end,
          all.map((o) => o.path),
          Math.max(TUCK_PX, TUCK_SIZES * l.weight.size),
        ),
      'No line is near enough to tuck this end under. Drag the end nearer and try again.',
    )

  /** Makes one line of two whose ends are chosen, or closes the one line that both ends are of. */
  function join(): void {
    const [a, b] = ends.value
    if (!a || !b) return
    if (a.line.id === b.line.id) {
      edit(
        'Close the gap',
        (draft) =>
          void changeLines(draft, [a.line.id], (l) => {
            const closed = closedLine(l)
            repath(l, closed.path, draft)
            Object.assign(l, closed)
          }),
      )
      view.nodes = []
      return
    }
    const first = a.end === 'last' ? a.line : reversedLine(a.line)
    const second = b.end === 'first' ? b.line : reversedLine(b.line)
    const one = joinedLines(first, second)
    const remade = new Map<string, Stretch[]>()
    editRemade('Join two ends', remade, (draft) => {
      const [keep, gone] = [findOpenLine(draft, a.line.id), findOpenLine(draft, b.line.id)]
      if (!keep || !gone) return
      for (const [id, stretches] of joinedAs(
        one,
        { line: a.line, turned: a.end === 'first' },
        { line: b.line, turned: b.end === 'last' },
      ))
        remade.set(id, stretches)
      keep.layer.items[keep.index] = one
      gone.layer.items.splice(
        gone.layer.items.findIndex((l) => l.id === b.line.id),
        1,
      )
    })
    view.select([one.id])
    view.nodes = [{ line: one.id, index: a.line.path.nodes.length - 1 }]
  }

  /** The chosen lines of layers that can be edited. */
  const open = (): Line[] =>
    view.selection.flatMap((id) => {
      const found = findOpenLine(store.drawing!, id)
      return found ? [found.line] : []
    })

  /** Joins all ends of the chosen lines that lie within `reach` px of each other, with the corners of the first. */
  function joinAll(label: string, reach: number): void {
    const lines = open()
    const { lines: made, remade, joints } = joinedAll(lines, reach, lines[0]?.finish.join ?? 'round')
    if (!joints) {
      store.notice = `No two ends of these lines lie within ${short(reach, 1)} px of each other.`
      return
    }
    const now = new Map(made.map((l) => [l.id, l]))
    const were = new Set(lines.map((l) => l.id))
    editRemade(label, remade, (draft) => {
      for (const layer of draft.layers)
        if (layer.kind === 'lines')
          layer.items = layer.items.flatMap((l) => (were.has(l.id) ? (now.get(l.id) ?? []) : [l]))
    })
    view.select(made.map((l) => l.id))
    store.notice = `${joints} ${joints === 1 ? 'pair' : 'pairs'} of ends joined: ${lines.length} ${lines.length === 1 ? 'line is' : 'lines are'} ${made.length} now.`
  }

  /** Turns those of the chosen lines round that go against the first. */
  function oneWay(): void {
    const { lines, remade } = goingOneWay(open())
    if (!lines.length) {
      store.notice = 'These lines go one way already.'
      return
    }
    editRemade('Turn lines one way', remade, (draft) => {
      for (const line of lines) changeLines(draft, [line.id], (l) => void Object.assign(l, line))
    })
    store.notice = `${lines.length} of ${view.selection.length} lines were turned round.`
  }

  return { joinAll, oneWay, ends, reverse, split, extend, tuck, join }
}

/** The parts of a line cut at some of its nodes, in order, and where its stretches are then. */
function splitAt(line: Line, indices: readonly number[]): { parts: Line[]; stretches: Stretch[] } {
  const arc = arcOfPath(line.path)
  const places = indices.map((i) => (arc.starts[i] ?? arc.total) / (arc.total || 1)).sort((a, b) => a - b)
  if (line.path.closed) {
    const [opened] = splitLine(line, places[0]!)
    const parts = splitAll(
      opened!,
      places.slice(1).map((p) => p - places[0]!),
    )
    return { parts, stretches: cutOpen(places, parts) }
  }
  const inner = places.filter((p) => p > 0 && p < 1)
  const parts = splitAll(line, inner)
  return { parts, stretches: cutAt(inner, parts) }
}

/** From the last place to the first, so that the places of those before stay shares of the whole. */
function splitAll(line: Line, places: readonly number[]): Line[] {
  let rest = line
  let share = 1
  const parts: Line[] = []
  for (const at of [...places].reverse()) {
    const [before, after] = splitLine(rest, at / share)
    if (!after) continue
    parts.unshift(after)
    rest = before!
    share = at
  }
  return [rest, ...parts]
}
