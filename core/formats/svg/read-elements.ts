import { BLACK, evenWeight, newLine } from '../../drawing/create'
import { newId } from '../../new-id'
import type { Drawing, Finish, Ink, Layer, Line, LinesLayer, Page, Path, Settings, Shape, ShapesLayer, Sketch, Weight } from '../../drawing/model'
import { itemProblem } from '../../drawing/check-drawing'
import { InputError } from '../../errors'
import type { Box } from '../../geometry/bounds'
import { boxOfCubics, emptyBox, grown, overlap, uniteBoxes } from '../../geometry/bounds'
import { arcOfPath } from '../../geometry/known'
import { cubicsOfPath } from '../../geometry/path'
import { dashCount, MOST_DASHES } from '../../outline/visible'
import { parseRecord } from '../json'
import type { Matrix } from '../../geometry/matrix'
import { composed, IDENTITY } from '../../geometry/matrix'
import { dataOfShape, pathsOfData } from './paths'
import type { Style } from './style'
import { INITIAL_STYLE, styleOf } from './style'
import { matrixOf, scaleOf } from './transform'
import type { SpareHandles } from './write-svg'

interface Frame {
  matrix: Matrix
  style: Style
  /** The element's content is not drawn. */
  skipped: boolean
  name: string
}

const SKIPPED = new Set(['defs', 'clipPath', 'mask', 'pattern', 'marker', 'symbol', 'metadata', 'linearGradient', 'radialGradient', 'filter', 'style', 'title', 'desc'])

const LONGEST_ID = 80
const LONGEST_NAME = 120

/** So many elements that were left out are told one by one. */
const MOST_TOLD = 5

/** A drawing takes so many inks; further colours get the nearest of them. */
const MOST_INKS = 500

/** From so many layers on, an item joins one of its kind rather than beginning another. */
const MANY_LAYERS = 400

type Attributes = Readonly<Record<string, string>>

/** Takes the elements of an SVG file one by one and collects the drawing that they make. */
export class SvgReader {
  private readonly stack: Frame[] = []
  private readonly layers: Layer[] = []
  private readonly inks: Ink[] = []
  private readonly inkByColour = new Map<string, string>()
  /** Red, green and blue of all inks once there are no more to come. */
  private rgb: number[][] | null = null
  /** Bounds of what lies in each layer. */
  private readonly boxes = new Map<Layer, Box>()
  private readonly ids = new Set<string>()
  /** What was to be drawn and could not be, a sentence each. */
  readonly losses: string[] = []
  private readonly notes = new Map<string, number>()
  private page: Page | null = null
  private name: string | null = null
  private settings: Settings | null = null
  private amendments: Drawing['amendments']
  private fills: Drawing['fills']
  /** Settings are those of the first form of a drawing. */
  private isFirstForm = false
  /** A layer that the file names is open at this depth. */
  private layerDepth = 0

  open(tag: string, a: Attributes): void {
    const parent = this.stack[this.stack.length - 1]
    const frame: Frame = {
      matrix: composed(parent?.matrix ?? IDENTITY, matrixOf(a.transform)),
      style: styleOf(parent?.style ?? INITIAL_STYLE, a),
      skipped: (parent?.skipped ?? false) || SKIPPED.has(tag),
      name: tag,
    }
    this.stack.push(frame)
    if (this.stack.length === 1) {
      this.root(a, frame)
      return
    }
    this.warn(tag, a)
    if (frame.skipped) return
    if (tag === 'script' || tag === 'foreignObject') frame.skipped = true
    else if (a['bt:layer']) this.openLayer(a)
    else if (a['bt:sketch']) this.sketch(a)
    else this.drawGuarded(tag, a, frame)
  }

  /** One element that cannot be used loses nothing but itself. */
  private drawGuarded(tag: string, a: Attributes, frame: Frame): void {
    try {
      this.draw(tag, a, frame)
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      this.losses.push(`A <${tag}> was left out: ${e.message.replace(/\.$/, '')}`)
    }
  }

  close(): void {
    this.stack.pop()
    if (this.stack.length < this.layerDepth) this.layerDepth = 0
  }

  text(text: string): void {
    const depth = this.stack.length
    if (depth === 2 && this.stack[1]!.name === 'title' && text.trim()) this.name ??= text.trim().slice(0, LONGEST_NAME).trim()
  }

  result(): { page: Page | null; name: string | null; inks: Ink[]; settings: Settings | null; amendments: Drawing['amendments']; fills: Drawing['fills']; isFirstForm: boolean; layers: Layer[] } {
    const { page, name, settings, amendments, fills, isFirstForm } = this
    const inks = this.inks.length ? this.inks : [{ ...BLACK }]
    const layers = this.layers.length ? this.layers : [layerOf('lines', 'Lines', [])]
    return { page, name, inks, settings, amendments, fills, isFirstForm, layers }
  }

  warnings(): string[] {
    for (const lost of this.losses.splice(0, MOST_TOLD)) this.note(lost)
    if (this.losses.length) this.note(`${this.losses.length} more elements were left out`)
    return [...this.notes].map(([note, n]) => (n > 1 ? `${note} (${n} times)` : note))
  }

  private note(text: string): void {
    this.notes.set(text, (this.notes.get(text) ?? 0) + 1)
  }

  private warn(tag: string, a: Attributes): void {
    if (tag === 'script') this.note('A script was left out')
    if (tag === 'foreignObject') this.note('Foreign content was left out')
    if (tag === 'use') this.note('A reused element was left out')
    if (tag === 'image') this.note('A picture was left out: bring it in as a sketch')
    if (tag === 'text') this.note('Lettering was left out: turn it into paths first')
    if (Object.keys(a).some((k) => /^on[a-z]/.test(k))) this.note('An event handler was left out')
  }

  private root(a: Attributes, frame: Frame): void {
    const live = a['bt:drawing'] ? (record(a['bt:drawing'], 'bt:drawing') as Partial<Drawing>) : null
    if (live) {
      this.page = live.page ?? null
      this.name = typeof live.name === 'string' ? live.name.trim().slice(0, LONGEST_NAME) || null : null
      this.settings = live.settings ?? null
      this.amendments = live.amendments
      this.fills = live.fills
      this.isFirstForm = !('form' in live)
      this.inks.push(...(Array.isArray(live.inks) ? live.inks : []))
      return
    }
    const box = (a.viewBox ?? '').split(/[\s,]+/).map(Number.parseFloat)
    const width = Number.parseFloat(a.width ?? '')
    const height = Number.parseFloat(a.height ?? '')
    if (box.length === 4 && box.every(Number.isFinite) && box[2]! > 0 && box[3]! > 0) {
      const px = /^[\d.]+(px)?$/.test(a.width ?? '') && /^[\d.]+(px)?$/.test(a.height ?? '') && width > 0 && height > 0
      const k = px ? Math.min(width / box[2]!, height / box[3]!) : 1
      frame.matrix = [k, 0, 0, k, -box[0]! * k, -box[1]! * k]
      this.page = { width: px ? width : box[2]!, height: px ? height : box[3]!, unit: 'px', pxPerMm: 96 / 25.4 }
    } else if (width > 0 && height > 0) {
      this.page = { width, height, unit: 'px', pxPerMm: 96 / 25.4 }
    }
  }

  private openLayer(a: Attributes): void {
    const given = record(a['bt:layer']!, 'bt:layer') as Partial<Layer>
    const kind = given.kind ?? 'lines'
    this.layers.push({ ...layerOf(kind, 'Layer', []), ...given, id: this.idOf(a.id), items: [] } as Layer)
    this.layerDepth = this.stack.length
  }

  private sketch(a: Attributes): void {
    const last = this.layers[this.layers.length - 1]
    if (last?.kind !== 'sketch') return
    last.items.push({ ...(record(a['bt:sketch']!, 'bt:sketch') as unknown as Sketch), id: this.idOf(a.id) })
  }

  private draw(tag: string, a: Attributes, { matrix, style }: Frame): void {
    const d = dataOfShape(tag, a)
    const inLayer = this.layerDepth > 0
    if (!d || (!style.shown && !inLayer)) return
    const paths = pathsOfData(d, matrix).filter((p) => p.nodes.length)
    if (!paths.length) return
    if (a['bt:weight']) {
      this.add('lines', this.liveLine(a, paths[0]!, style))
      return
    }
    if (style.fill && (paths.some((p) => p.nodes.length > 2 || p.closed) || a['bt:shape'])) {
      this.add('shapes', this.shape(a, paths, style.fill))
    }
    if (style.stroke && style.strokeWidth > 0) {
      const { scale, even } = scaleOf(matrix)
      if (!even) this.note('A stroke scaled unevenly was given one width')
      for (const path of paths) this.add('lines', this.stroke(path, style, style.stroke, scale))
      if (style.dash.length && paths.some((p) => dashCount(style.dash, arcOfPath(p).total / scale) > MOST_DASHES)) {
        this.note(`A stroke of more than ${MOST_DASHES} dashes is drawn whole`)
      }
    }
  }

  private shape(a: Attributes, paths: Path[], colour: string): Shape {
    const live = a['bt:shape'] ? (record(a['bt:shape'], 'bt:shape') as { ink: string; from: string[]; joints: string[] }) : null
    const contours = paths.map((p, i) => withJoints({ ...p, closed: true }, live?.joints?.[i]))
    return { id: this.idOf(live ? a.id : undefined), contours, ink: live?.ink ?? this.inkOf(colour), from: live?.from ?? [] }
  }

  private liveLine(a: Attributes, path: Path, style: Style): Line {
    const given = (a['bt:line'] ? record(a['bt:line'], 'bt:line') : {}) as Partial<Line> & { spare?: SpareHandles }
    const { spare, ...rest } = given
    return {
      ...newLine(withSpare(withJoints(path, a['bt:joints']), spare)),
      ...rest,
      id: this.idOf(a.id),
      ink: rest.ink ?? this.inkOf(style.stroke ?? '#000000'),
      weight: record(a['bt:weight']!, 'bt:weight') as unknown as Weight,
      ...(a['bt:finish'] && { finish: record(a['bt:finish'], 'bt:finish') as unknown as Finish }),
    }
  }

  private stroke(path: Path, style: Style, colour: string, scale: number): Line {
    return newLine(path, {
      weight: evenWeight(style.strokeWidth * scale),
      finish: {
        startCap: style.cap,
        endCap: style.cap,
        join: style.join,
        miterLimit: style.miterLimit,
        align: 'centre',
        dash: style.dash.map((v) => v * scale),
      },
      ink: this.inkOf(colour),
    })
  }

  /**
   * Keeps the stacking order: an item joins the topmost layer of its kind that nothing above it would hide it from, else it
   * begins a new one on top. An item that no drawing may have is left out.
   */
  private add(kind: 'lines' | 'shapes', item: Line | Shape): void {
    const problem = itemProblem(kind, item)
    if (problem) throw new InputError(kind, problem)
    const box = boxOf(item)
    const inLayer = this.layerDepth > 0
    let at = this.layers.length - 1
    const isOf = (l: Layer | undefined): boolean => l?.kind === kind || (kind === 'shapes' && l?.kind === 'fills')
    while (!inLayer && at >= 0 && !isOf(this.layers[at]) && !overlap(box, this.boxes.get(this.layers[at]!) ?? EVERYWHERE)) at--
    let layer = isOf(this.layers[at]) ? this.layers[at] : undefined
    if (!layer && this.layers.length >= MANY_LAYERS) {
      layer = this.layers.findLast(isOf)
      if (layer) this.note('More changes between fills and strokes than there is room for layers: the order of some may differ')
    }
    if (!layer) {
      layer = layerOf(kind, kind === 'lines' ? 'Lines' : 'Shapes', [])
      this.layers.push(layer)
    }
    this.boxes.set(layer, uniteBoxes(this.boxes.get(layer) ?? emptyBox(), box))
    ;(layer.items as (Line | Shape)[]).push(item)
  }

  /** The id that the file gives, or a fresh one where it gives none or the same one twice. */
  private idOf(given: string | undefined): string {
    const id = given && given.length <= LONGEST_ID && !this.ids.has(given) ? given : newId()
    this.ids.add(id)
    return id
  }

  private inkOf(colour: string): string {
    const known = this.inkByColour.get(colour) ?? this.inks.find((i) => i.colour === colour)?.id
    if (known) return known
    let id: string
    if (this.inks.length < MOST_INKS) {
      id = newId()
      this.inks.push({ id, name: colour === '#000000' ? 'Black' : colour, colour })
    } else {
      id = this.nearestInk(rgbOf(colour))
      this.note(`More than ${MOST_INKS} colours: others were given the nearest of them`)
    }
    this.inkByColour.set(colour, id)
    return id
  }

  private nearestInk([r, g, b]: number[]): string {
    this.rgb ??= this.inks.map((i) => rgbOf(i.colour))
    let best = 0
    let least = Infinity
    this.rgb.forEach(([ir, ig, ib], i) => {
      const off = (ir! - r!) ** 2 + (ig! - g!) ** 2 + (ib! - b!) ** 2
      if (off < least) [best, least] = [i, off]
    })
    return this.inks[best]!.id
  }
}

/** Bounds of an item's paths with the width of its line. */
function boxOf(item: Line | Shape): Box {
  const paths = 'path' in item ? [item.path] : item.contours
  const box = boxOfCubics(paths.flatMap(cubicsOfPath))
  return 'path' in item ? grown(box, item.weight.size) : box
}

const EVERYWHERE: Box = { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity }

const rgbOf = (colour: string): number[] => [1, 3, 5].map((i) => Number.parseInt(colour.slice(i, i + 2), 16))

function layerOf(kind: Layer['kind'], name: string, items: []): LinesLayer | ShapesLayer {
  return { id: newId(), name, kind, visible: true, locked: false, opacity: 1, items } as LinesLayer | ShapesLayer
}

function withJoints(path: Path, joints: string | undefined): Path {
  if (joints?.length !== path.nodes.length) return path
  return { ...path, nodes: path.nodes.map((n, i) => ({ ...n, joint: joints[i] === 's' ? 'smooth' : 'corner' })) }
}

function withSpare(path: Path, spare: SpareHandles | undefined): Path {
  if (!spare || path.closed) return path
  const last = path.nodes.length - 1
  return {
    ...path,
    nodes: path.nodes.map((n, i) => ({ ...n, ...(i === 0 && { in: spare.in }), ...(i === last && { out: spare.out }) })),
  }
}

/** A record of live data in an attribute. */
const record = (text: string, field: string): Record<string, unknown> => parseRecord(text, field, `The live data in this SVG is damaged (${field}). Export it again.`)
