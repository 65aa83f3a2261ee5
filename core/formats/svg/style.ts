import { color } from 'd3-color'
import type { Cap, Join } from '../../model/model'
import type { SvgElement } from './element'
import { idOfReference } from './element'
import { lengthOf } from './lengths'
import type { ViewBox } from './viewport'

/** What something is painted with: a colour, or a paint server by its id with what stands in for it. */
export interface Paint {
  /** #rrggbb */
  colour: string
  /** 0..1 */
  alpha: number
  server?: string
}

/** The presentation of an element, as far as ink needs it. */
export interface Style {
  stroke: Paint | null
  fill: Paint | null
  /** What `currentColor` stands for. */
  current: Paint
  strokeWidth: number
  cap: Cap
  join: Join
  miterLimit: number
  dash: number[]
  dashOffset: number
  fillOpacity: number
  strokeOpacity: number
  evenOdd: boolean
  clipEvenOdd: boolean
  strokeFirst: boolean
  visible: boolean
  em: number
  /** Neither it nor what is in it is drawn. */
  shown: boolean
  /** These are not inherited. */
  opacity: number
  nonScaling: boolean
  clip: string | null
  masked: boolean
  filtered: boolean
  blended: boolean
}

const BLACK: Paint = { colour: '#000000', alpha: 1 }

export const INITIAL_STYLE: Style = {
  stroke: null,
  fill: BLACK,
  current: BLACK,
  strokeWidth: 1,
  cap: 'butt',
  join: 'miter',
  miterLimit: 4,
  dash: [],
  dashOffset: 0,
  fillOpacity: 1,
  strokeOpacity: 1,
  evenOdd: false,
  clipEvenOdd: false,
  strokeFirst: false,
  visible: true,
  em: 16,
  shown: true,
  opacity: 1,
  nonScaling: false,
  clip: null,
  masked: false,
  filtered: false,
  blended: false,
}

/** The style of an element whose parent has `parent`; `diagonal` is what percentages of widths are meant of, px. */
export function styleOf(parent: Style, element: Pick<SvgElement, 'attributes' | 'declared'>, diagonal: number): Style {
  const next: Style = {
    ...parent,
    opacity: 1,
    nonScaling: false,
    clip: null,
    masked: false,
    filtered: false,
    blended: false,
  }
  const value = (name: string): string | undefined => {
    const v = (element.declared[name] ?? element.attributes[name])?.trim()
    if (v === undefined || v === '' || v === 'inherit' || v === 'unset') return undefined
    return v
  }
  const take = (name: string, use: (v: string) => void): void => {
    const v = value(name)
    if (v !== undefined) use(v)
  }
  take('font-size', (v) => (next.em = lengthOf(v, { whole: parent.em, em: parent.em }) ?? parent.em))
  const length = (v: string): number | undefined => lengthOf(v, { whole: diagonal, em: next.em })
  take(
    'color',
    (v) => (next.current = v === 'currentColor' ? parent.current : (paintOf(v, parent.current) ?? parent.current)),
  )
  take('stroke', (v) => (next.stroke = paintOf(v, next.current)))
  take('fill', (v) => (next.fill = paintOf(v, next.current)))
  take('stroke-width', (v) => (next.strokeWidth = Math.max(0, length(v) ?? next.strokeWidth)))
  take('stroke-linecap', (v) => (next.cap = v === 'round' || v === 'square' || v === 'butt' ? v : next.cap))
  // Joins that no ink has are drawn as the nearest.
  take('stroke-linejoin', (v) => (next.join = v === 'round' || v === 'bevel' ? v : 'miter'))
  take('stroke-miterlimit', (v) => (next.miterLimit = Math.max(1, number(v) ?? next.miterLimit)))
  take('stroke-dasharray', (v) => (next.dash = dashes(v, length)))
  take('stroke-dashoffset', (v) => (next.dashOffset = length(v) ?? 0))
  take('fill-opacity', (v) => (next.fillOpacity = share(v)))
  take('stroke-opacity', (v) => (next.strokeOpacity = share(v)))
  take('fill-rule', (v) => (next.evenOdd = v === 'evenodd'))
  take('clip-rule', (v) => (next.clipEvenOdd = v === 'evenodd'))
  take(
    'paint-order',
    (v) =>
      (next.strokeFirst =
        v.indexOf('stroke') >= 0 && (v.indexOf('fill') < 0 || v.indexOf('stroke') < v.indexOf('fill'))),
  )
  take('visibility', (v) => (next.visible = v === 'visible'))
  take('display', (v) => (next.shown &&= v !== 'none'))
  take('opacity', (v) => (next.opacity = share(v)))
  take('vector-effect', (v) => (next.nonScaling = v === 'non-scaling-stroke'))
  take('clip-path', (v) => (next.clip = idOfReference(v)))
  take('mask', (v) => (next.masked = v !== 'none'))
  take('filter', (v) => (next.filtered = v !== 'none'))
  take('mix-blend-mode', (v) => (next.blended = v !== 'normal'))
  return next
}

function dashes(text: string, length: (v: string) => number | undefined): number[] {
  if (text === 'none') return []
  const all = text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(length)
  return all.length <= 64 && all.every((v) => v !== undefined && v >= 0) && all.some((v) => v! > 0)
    ? (all as number[])
    : []
}

const number = (text: string): number | undefined => {
  const v = Number.parseFloat(text)
  return Number.isFinite(v) ? v : undefined
}

const share = (text: string): number => Math.min(1, Math.max(0, (number(text) ?? 1) / (text.endsWith('%') ? 100 : 1)))

/** A colour function as CSS Color 4 writes it, with its numbers parted by commas. */
function inCommas(text: string): string {
  const found = /^(rgb|hsl)a?\(([^()]{1,100})\)$/i.exec(text)
  if (!found) return text
  const [a, b, c, alpha] = found[2]!.trim().split(/[\s,/]+/)
  if (alpha === undefined) return `${found[1]!}(${[a, b, c].join(', ')})`
  return `${found[1]!}a(${[a, b, c, alpha.endsWith('%') ? Number.parseFloat(alpha) / 100 : alpha].join(', ')})`
}

/** A paint; null for none. */
export function paintOf(text: string, current: Paint): Paint | null {
  const reference = /^url\([^)]*\)/.exec(text)?.[0]
  if (reference) {
    const server = idOfReference(reference)
    // What stands beside it is a colour, not one more reference.
    const otherwise = text.slice(reference.length).trim()
    const fallback = otherwise && !/^url\(/.test(otherwise) ? paintOf(otherwise, current) : null
    return { ...(fallback ?? { colour: '#000000', alpha: 0 }), ...(server && { server }) }
  }
  if (text === 'none' || text === 'transparent') return null
  if (text.toLowerCase() === 'currentcolor') return current
  const parsed = color(inCommas(text))
  if (!parsed) return BLACK
  return parsed.opacity === 0 ? null : { colour: parsed.copy({ opacity: 1 }).formatHex(), alpha: parsed.opacity }
}

/** The style of an element within a viewport, by which its lengths in per cent go. */
export const styleIn = (port: ViewBox, parent: Style, e: SvgElement): Style =>
  styleOf(parent, e, Math.hypot(port.width, port.height) / Math.SQRT2)
