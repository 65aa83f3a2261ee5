import type { Drawing, Layer, Line, Shape, SketchLayer } from '../../model/model'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { perUsualPx } from '../../model/fineness'
import { colourOf } from '../../model/queries'
import { matricesOf, rulesOf } from '../../repetition/images'
import { pathData, short } from '../../geometry/path'
import { scaledShape, shapeGroups } from './shape-groups'

export const BT_NAMESPACE = 'urn:bellatrait:1'

/** The form of the data about a drawing; files without one hold the first. */
const DRAWING_FORM = 2

/** Decimals of outlines on the usual page; smaller pages have more, so that they print as finely. */
const OUTLINE_DIGITS = 3

/** The arriving handle of an open path's first node and the leaving one of its last. */
export interface SpareHandles {
  in: Vec | null
  out: Vec | null
}

export type SvgOptions =
  /** Lines as strokes that carry their live data and open again losslessly. */
  | { content: 'lines' }
  /** Filled outlines only: what `shapes` holds, bottom to top. */
  | ({ content: 'outlines'; shapes: readonly Shape[] } & Partial<OutlineOptions>)

interface OutlineOptions {
  /** Neighbours in the stack that belong to one layer, or one ink, stand in a group by its name. */
  groups: 'flat' | 'layer' | 'ink'
  /** What coordinates are told in; the page has its true size either way. */
  unit: 'px' | 'mm'
  /** Decimals of coordinates, 0..6; null for as many as can be seen. */
  digits: number | null
  /** The colour of the page beneath all ink; null for none. */
  ground: string | null
}

/** A drawing as SVG text. The page is its size in the page's unit; coordinates are px unless told otherwise. */
export function writeSvg(drawing: Drawing, options: SvgOptions): string {
  const { page } = drawing
  const inUnit = (v: number): string => (page.unit === 'mm' ? `${short(v / page.pxPerMm, 4)}mm` : short(v, 4))
  const live = options.content === 'lines'
  const perUnit = options.content === 'outlines' && options.unit === 'mm' ? page.pxPerMm : 1
  const out = [
    `<svg xmlns="http://www.w3.org/2000/svg"${live ? ` xmlns:bt="${BT_NAMESPACE}"` : ''}` +
      ` width="${inUnit(page.width)}" height="${inUnit(page.height)}"` +
      ` viewBox="0 0 ${short(page.width / perUnit, 4)} ${short(page.height / perUnit, 4)}"` +
      (live
        ? ` bt:drawing="${json({ form: DRAWING_FORM, name: drawing.name, page, inks: drawing.inks, settings: drawing.settings, ...(drawing.amendments && { amendments: drawing.amendments }), ...(drawing.fills && { fills: drawing.fills }) })}"`
        : '') +
      '>',
    `<title>${escape(drawing.name)}</title>`,
  ]
  if (options.content === 'outlines') {
    const digits =
      options.digits ?? Math.max(OUTLINE_DIGITS, Math.ceil(OUTLINE_DIGITS - Math.log10(perUsualPx(page) / perUnit)))
    if (options.ground)
      out.push(
        `<rect width="${short(page.width / perUnit, 4)}" height="${short(page.height / perUnit, 4)}" fill="${options.ground}"/>`,
      )
    out.push(
      ...outlines(
        options.shapes.map((s) => scaledShape(s, 1 / perUnit)),
        drawing,
        options.groups ?? 'flat',
        digits,
      ),
    )
  } else {
    for (const layer of drawing.layers) out.push(...group(layer, drawing))
  }
  out.push('</svg>')
  return out.join('\n') + '\n'
}

/** Filled shapes, in groups where these are asked for. */
function outlines(shapes: readonly Shape[], drawing: Drawing, by: OutlineOptions['groups'], digits: number): string[] {
  if (by === 'flat') return shapes.map((s) => filled(s, drawing, digits))
  return shapeGroups(shapes, drawing, by).flatMap(({ id, shapes: of }) => [
    `<g id="${escape(id)}">`,
    ...of.map((s) => filled(s, drawing, digits)),
    '</g>',
  ])
}

function group(layer: Layer, drawing: Drawing): string[] {
  const { name, kind, visible, locked, opacity } = layer
  const attributes =
    ` bt:layer="${json({ name, kind, visible, locked, opacity })}"` +
    (visible && kind !== 'sketch' ? '' : ' display="none"') +
    (opacity < 1 ? ` opacity="${short(opacity, 4)}"` : '')
  return [`<g id="${escape(layer.id)}"${attributes}>`, ...items(layer, drawing), '</g>']
}

function items(layer: Layer, drawing: Drawing): string[] {
  switch (layer.kind) {
    case 'lines':
      return layer.items.flatMap((l) => [stroked(l, drawing), ...standingBesides(l, drawing)])
    case 'sketch':
      return sketches(layer)
    default:
      return layer.items.map((s) => filled(s, drawing))
  }
}

/** Where else a line stands that is mirrored or repeated: to be looked at; what opens the file makes it of the rules. */
const standingBesides = (line: Line, drawing: Drawing): string[] =>
  matricesOf(line, rulesOf(drawing))
    .slice(1)
    .map(
      (m) =>
        `<use href="#${escape(line.id)}" transform="matrix(${m.map((v) => short(v, 6)).join(' ')})" bt:image="1"/>`,
    )

function sketches(layer: SketchLayer): string[] {
  return layer.items.map((s) => `<g id="${escape(s.id)}" bt:sketch="${json({ ...s, id: undefined })}"/>`)
}

function stroked(line: Line, drawing: Drawing): string {
  const { weight, finish } = line
  const rest = {
    ink: line.ink,
    snips: line.snips,
    cover: line.cover,
    trace: line.trace,
    ...(line.scrapes && { scrapes: line.scrapes }),
    ...(line.outside && { outside: line.outside }),
    ...(line.contact && { contact: line.contact }),
    ...(line.tuck && { tuck: line.tuck }),
    ...(line.over && { over: line.over }),
    ...(line.apart && { apart: line.apart }),
    ...(line.tint !== undefined && { tint: line.tint }),
    ...(line.name && { name: line.name }),
    ...(line.hidden && { hidden: line.hidden }),
    ...(line.locked && { locked: line.locked }),
    ...spareHandles(line.path),
  }
  return (
    `<path id="${escape(line.id)}" d="${pathData(line.path)}" fill="none" stroke="${colourOf(drawing, line.ink)}"` +
    ` stroke-width="${short(weight.size, 4)}" stroke-linecap="${finish.startCap}" stroke-linejoin="${finish.join}"` +
    ` stroke-miterlimit="${short(finish.miterLimit, 4)}"` +
    (line.hidden ? ' visibility="hidden"' : '') +
    (finish.dash.length ? ` stroke-dasharray="${finish.dash.join(' ')}"` : '') +
    ` bt:joints="${jointsOf(line.path)}" bt:weight="${json(weight)}" bt:finish="${json(finish)}" bt:line="${json(rest)}"/>`
  )
}

function filled(shape: Shape, drawing: Drawing, digits?: number): string {
  const d = shape.contours.map((c) => pathData({ ...c, closed: true }, digits)).join('')
  const live = digits === undefined
  return (
    `<path id="${escape(shape.id)}" d="${d}" fill="${colourOf(drawing, shape.ink)}"` +
    (live ? ` bt:shape="${json({ ink: shape.ink, from: shape.from, joints: shape.contours.map(jointsOf) })}"` : '') +
    '/>'
  )
}

/** Handles at the open ends, which path data cannot hold. */
function spareHandles({ nodes, closed }: Path): { spare?: SpareHandles } {
  const spare = { in: nodes[0]?.in ?? null, out: nodes[nodes.length - 1]?.out ?? null }
  return closed || (!spare.in && !spare.out) ? {} : { spare }
}

/** One letter a node: s for smooth, c for corner. */
const jointsOf = (path: Path): string => path.nodes.map((n) => n.joint[0]).join('')

const json = (value: unknown): string => escape(JSON.stringify(value))

// Control characters that XML cannot hold at all are dropped.
const escape = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;')
    .replace(/[\n\r\t]/g, (c) => `&#${c.charCodeAt(0)};`)
