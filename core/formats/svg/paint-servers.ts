import { rgb } from 'd3-color'
import type { SvgElement } from './element'
import { idOfReference, withAllIn } from './element'
import type { Paint } from './style'
import { INITIAL_STYLE, paintOf, styleOf } from './style'

/** References are followed so far. */
const DEEPEST = 16

/** The mean colour of a gradient or a pattern; null where it paints nothing. */
export function meanPaint(server: SvgElement, elements: ReadonlyMap<string, SvgElement>): Paint | null {
  if (server.tag === 'pattern') return meanOf(inPattern(server).map((paint) => ({ paint, weight: 1 })))
  const stops = stopsOf(server, elements, DEEPEST)
  // Each stop counts by how far its colour reaches to both sides; the first and last beyond.
  const at = (i: number): number => (i < 0 ? 0 : i >= stops.length ? 1 : stops[i]!.offset)
  return meanOf(
    stops.map((s, i) => ({
      paint: s.paint,
      weight:
        (i === 0 ? s.offset : (s.offset - at(i - 1)) / 2) +
        (i === stops.length - 1 ? 1 - s.offset : (at(i + 1) - s.offset) / 2),
    })),
  )
}

function stopsOf(
  server: SvgElement,
  elements: ReadonlyMap<string, SvgElement>,
  deeper: number,
): { offset: number; paint: Paint }[] {
  const own = server.children.filter((c) => c.tag === 'stop')
  if (!own.length) {
    const other = elements.get(idOfReference(server.attributes.href ?? server.attributes['xlink:href']) ?? '')
    return other && deeper > 0 ? stopsOf(other, elements, deeper - 1) : []
  }
  let last = 0
  return own.map((stop) => {
    const value = (name: string): string | undefined => stop.declared[name] ?? stop.attributes[name]
    const text = stop.attributes.offset ?? '0'
    const offset = Math.max(last, Math.min(1, (Number.parseFloat(text) || 0) / (text.trim().endsWith('%') ? 100 : 1)))
    last = offset
    const paint = paintOf(value('stop-color') ?? '#000000', INITIAL_STYLE.current) ?? { colour: '#000000', alpha: 0 }
    const opacity = Number.parseFloat(value('stop-opacity') ?? '1')
    return {
      offset,
      paint: {
        colour: paint.colour,
        alpha: paint.alpha * (Number.isFinite(opacity) ? Math.min(1, Math.max(0, opacity)) : 1),
      },
    }
  })
}

function inPattern(pattern: SvgElement): Paint[] {
  return [...withAllIn(pattern)].slice(1).flatMap((e) => {
    const style = styleOf({ ...INITIAL_STYLE, fill: null }, e, 0)
    return [style.fill, style.stroke].filter((p): p is Paint => !!p && !p.server)
  })
}

/** The mean of paints by their weights, more or less opaque. */
function meanOf(all: readonly { paint: Paint; weight: number }[]): Paint | null {
  let [r, g, b, a, n] = [0, 0, 0, 0, 0]
  const even = all.every((p) => !(p.weight > 0))
  for (const { paint, weight } of all) {
    const w = even ? 1 : weight
    const c = rgb(paint.colour)
    const k = w * paint.alpha
    ;[r, g, b, a, n] = [r + k * c.r, g + k * c.g, b + k * c.b, a + k, n + w]
  }
  return a > 0 ? { colour: rgb(r / a, g / a, b / a).formatHex(), alpha: a / n } : null
}
