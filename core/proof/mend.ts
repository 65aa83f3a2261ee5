import type { Drawing, Line, Weight, WidthStop } from '../model/model'
import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import type { End } from '../geometry/ends'
import { lerp } from '../geometry/point'
import { isEndStop } from '../relations/body'
import { withTaper } from '../weight/end-tapers'
import { withStopsChanged } from '../weight/own-stops'
import type { Finding, Mend } from './finding'
import { RUNS_OUT, thickest, thinnest } from './widths'

/** A free end tapers over so much of its line, %. */
const TAPER = 30

/** A line as a mend makes it; null where it goes. */
export function mendedLine(line: Line, mend: Mend): Line | null {
  switch (mend.do) {
    case 'taper':
      return {
        ...line,
        weight: withTaper(line.weight, mend.end, { length: TAPER, unit: '%', tip: 0, ease: 'straight' }),
      }
    case 'meet':
      return { ...line, path: withEndAt(line.path, mend.end, mend.to) }
    case 'close':
      return { ...line, path: withEndAt(line.path, mend.end, mend.to), weight: withFullEnd(line.weight, mend.end) }
    case 'tuck':
      return { ...line, tuck: { ...line.tuck, [mend.end]: 'in' } }
    case 'widen':
      return raised(line, mend.to, (l) => (thinnest(l, mend.to)?.width ?? Infinity) >= mend.to)
    case 'even':
      return raised(
        line,
        thickest(line) / mend.ratio,
        (l) => (thinnest(l, thickest(l) / mend.ratio)?.width ?? Infinity) >= thickest(l) / mend.ratio,
      )
    case 'ink':
      return { ...line, ink: mend.ink }
    case 'delete':
      return null
    case 'forget':
    case 'unpour':
    case 'pour':
      return line
  }
}

/** Puts the mends of findings on a draft; several of one line one after the other. */
export function mendAll(draft: Drawing, findings: readonly Finding[]): void {
  const byLine = new Map<string, Mend[]>()
  const forgotten = new Set<string>()
  const unpoured = new Set<string>()
  for (const { mend } of findings) {
    if (!mend) continue
    if (mend.do === 'forget') forgotten.add(mend.amendment)
    else if (mend.do === 'unpour') unpoured.add(mend.fill)
    else if (mend.do === 'pour') draft.fills = [...(draft.fills ?? []).filter((f) => f.id !== mend.fill.id), mend.fill]
    else byLine.set(mend.line, [...(byLine.get(mend.line) ?? []), mend])
  }
  for (const layer of draft.layers) {
    if (layer.kind !== 'lines' || layer.locked || !layer.items.some((l) => byLine.has(l.id))) continue
    layer.items = layer.items.flatMap((line): Line[] => {
      let next: Line | null = line
      for (const mend of line.locked ? [] : (byLine.get(line.id) ?? [])) next = next && mendedLine(next, mend)
      return next ? [next] : []
    })
  }
  if (unpoured.size) draft.fills = draft.fills?.filter((f) => !unpoured.has(f.id))
  if (forgotten.size) draft.amendments = draft.amendments?.filter((a) => !forgotten.has(a.id))
}

/** An end moved straight on to a place: a straight last segment grows, else a straight one is added. */
function withEndAt(path: Path, end: End, to: Vec): Path {
  const nodes = end === 'last' ? [...path.nodes] : path.nodes.toReversed()
  const [out, back] = end === 'last' ? (['out', 'in'] as const) : (['in', 'out'] as const)
  const tip = nodes[nodes.length - 1]!
  if (nodes.length > 1 && !tip[back] && !nodes[nodes.length - 2]![out]) nodes[nodes.length - 1] = { ...tip, at: to }
  else {
    nodes[nodes.length - 1] = { ...tip, [out]: lerp(tip.at, to, 1 / 3), joint: tip[back] ? 'smooth' : 'corner' }
    nodes.push({ at: to, in: null, out: null, joint: 'corner', [back]: lerp(tip.at, to, 2 / 3) })
  }
  return { ...path, nodes: end === 'last' ? nodes : nodes.toReversed() }
}

/** A weight that does not run out at an end. */
function withFullEnd(weight: Weight, end: End): Weight {
  return withStopsChanged({ ...weight, [end === 'first' ? 'start' : 'end']: null }, (stops) =>
    stops.map((s, i) =>
      (end === 'first' ? i === 0 : i === stops.length - 1) && s.left + s.right < 1
        ? { ...s, left: 0.5, right: 0.5 }
        : s,
    ),
  )
}

/** So often the floor is raised a little more, where the profile dips between its stops. */
const TRIES = 12
const MORE = 1.06

/** A line whose stops are no thinner than `least` px, or as much more as it takes. */
function raised(line: Line, least: number, isDone: (line: Line) => boolean): Line {
  let next = line
  for (let i = 0, floor = least * 1.01; i < TRIES && !isDone(next); i++, floor *= MORE)
    next = { ...line, weight: widened(line.weight, floor) }
  return next
}

/** A weight that is nowhere thinner than `least` px at its stops, but for ends at which it runs out to nothing. */
const widened = (weight: Weight, least: number): Weight =>
  withStopsChanged(weight, (stops) =>
    stops.map((s): WidthStop => {
      const factor = s.left + s.right
      const wanted = (2 * least) / (weight.size || 1)
      if (factor >= wanted || (isEndStop(s) && factor < RUNS_OUT)) return s
      return factor > 0
        ? { ...s, left: (s.left * wanted) / factor, right: (s.right * wanted) / factor }
        : { ...s, left: wanted / 2, right: wanted / 2 }
    }),
  )
