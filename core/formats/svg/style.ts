import { color } from 'd3-color'
import type { Cap, Join } from '../../drawing/model'

/** The inherited presentation of an element, as far as ink needs it. */
export interface Style {
  stroke: string | null
  fill: string | null
  strokeWidth: number
  cap: Cap
  join: Join
  miterLimit: number
  dash: number[]
  shown: boolean
}

export const INITIAL_STYLE: Style = {
  stroke: null,
  fill: '#000000',
  strokeWidth: 1,
  cap: 'butt',
  join: 'miter',
  miterLimit: 4,
  dash: [],
  shown: true,
}

/** The style of an element whose parent has `parent`: presentation attributes, then the style attribute. */
export function styleOf(parent: Style, attributes: Readonly<Record<string, string>>): Style {
  const declared: Record<string, string> = { ...attributes }
  for (const part of (attributes.style ?? '').split(';')) {
    const at = part.indexOf(':')
    if (at > 0) declared[part.slice(0, at).trim()] = part.slice(at + 1).trim()
  }
  const next = { ...parent }
  const value = (name: string): string | undefined => {
    const v = declared[name]?.trim()
    return v === '' || v === 'inherit' ? undefined : v
  }
  const stroke = value('stroke')
  if (stroke !== undefined) next.stroke = paint(stroke)
  const fill = value('fill')
  if (fill !== undefined) next.fill = paint(fill)
  const width = number(value('stroke-width'))
  if (width !== undefined) next.strokeWidth = Math.max(0, width)
  const cap = value('stroke-linecap')
  if (cap === 'butt' || cap === 'round' || cap === 'square') next.cap = cap
  const join = value('stroke-linejoin')
  if (join === 'miter' || join === 'round' || join === 'bevel') next.join = join
  const limit = number(value('stroke-miterlimit'))
  if (limit !== undefined) next.miterLimit = Math.max(1, limit)
  const dash = value('stroke-dasharray')
  if (dash !== undefined) next.dash = dashes(dash)
  if (value('display') === 'none') next.shown = false
  return next
}

function dashes(text: string): number[] {
  if (text === 'none') return []
  const all = text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number.parseFloat)
  return all.every((v) => v >= 0 && Number.isFinite(v)) && all.length <= 64 ? all : []
}

const number = (text: string | undefined): number | undefined => {
  const v = Number.parseFloat(text ?? '')
  return Number.isFinite(v) ? v : undefined
}

/** #rrggbb, or null for no paint. What cannot be painted flat (gradients, patterns) becomes black. */
function paint(text: string): string | null {
  if (text === 'none' || text === 'transparent') return null
  if (text === 'currentColor' || text.startsWith('url(')) return '#000000'
  const parsed = color(text)
  return parsed ? (parsed.opacity === 0 ? null : parsed.copy({ opacity: 1 }).formatHex()) : '#000000'
}
