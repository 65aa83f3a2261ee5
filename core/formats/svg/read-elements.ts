import { BLACK, evenWeight, newId, newLine } from '../../drawing/create'
import type { Drawing, Finish, Ink, Layer, Line, LinesLayer, Page, Path, Settings, Shape, ShapesLayer, Sketch, Weight } from '../../drawing/model'
import { InputError } from '../../errors'
import type { Matrix } from './paths'
import { dataOfShape, IDENTITY, pathsOfData } from './paths'
import type { Style } from './style'
import { INITIAL_STYLE, styleOf } from './style'
import { matrixOf, multiply, scaleOf } from './transform'
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

type Attributes = Readonly<Record<string, string>>

/** Takes the elements of an SVG file one by one and collects the drawing that they make. */
export class SvgReader {
  private readonly stack: Frame[] = []
  private readonly layers: Layer[] = []
  private readonly inks: Ink[] = []
  private readonly ids = new Set<string>()
  private readonly notes = new Map<string, number>()
  private page: Page | null = null
  private name: string | null = null
  private settings: Settings | null = null
  /** A layer that the file names is open at this depth. */
  private layerDepth = 0

  open(tag: string, a: Attributes): void {
    const parent = this.stack[this.stack.length - 1]
    const frame: Frame = {
      matrix: multiply(parent?.matrix ?? IDENTITY, matrixOf(a.transform)),
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
    else this.draw(tag, a, frame)
  }

  close(): void {
    this.stack.pop()
    if (this.stack.length < this.layerDepth) this.layerDepth = 0
  }

  text(text: string): void {
    const depth = this.stack.length
    if (depth === 2 && this.stack[1]!.name === 'title' && text.trim()) this.name ??= text.trim().slice(0, 120)
  }

  result(): { page: Page | null; name: string | null; inks: Ink[]; settings: Settings | null; layers: Layer[] } {
    const { page, name, settings } = this
    const inks = this.inks.length ? this.inks : [{ ...BLACK }]
    const layers = this.layers.length ? this.layers : [layerOf('lines', 'Lines', [])]
    return { page, name, inks, settings, layers }
  }

  warnings(): string[] {
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
    const live = a['bt:drawing'] ? (json(a['bt:drawing'], 'bt:drawing') as Partial<Drawing>) : null
    if (live) {
      this.page = live.page ?? null
      this.name = live.name ?? null
      this.settings = live.settings ?? null
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
    const given = json(a['bt:layer']!, 'bt:layer') as Partial<Layer>
    const kind = given.kind ?? 'lines'
    this.layers.push({ ...layerOf(kind, 'Layer', []), ...given, id: this.idOf(a.id), items: [] } as Layer)
    this.layerDepth = this.stack.length
  }

  private sketch(a: Attributes): void {
    const last = this.layers[this.layers.length - 1]
    if (last?.kind !== 'sketch') return
    last.items.push({ ...(json(a['bt:sketch']!, 'bt:sketch') as Sketch), id: this.idOf(a.id) })
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
    }
  }

  private shape(a: Attributes, paths: Path[], colour: string): Shape {
    const live = a['bt:shape'] ? (json(a['bt:shape'], 'bt:shape') as { ink: string; from: string[]; joints: string[] }) : null
    const contours = paths.map((p, i) => withJoints({ ...p, closed: true }, live?.joints?.[i]))
    return { id: this.idOf(live ? a.id : undefined), contours, ink: live?.ink ?? this.inkOf(colour), from: live?.from ?? [] }
  }

  private liveLine(a: Attributes, path: Path, style: Style): Line {
    const given = (a['bt:line'] ? json(a['bt:line'], 'bt:line') : {}) as Partial<Line> & { spare?: SpareHandles }
    const { spare, ...rest } = given
    return {
      ...newLine(withSpare(withJoints(path, a['bt:joints']), spare)),
      ...rest,
      id: this.idOf(a.id),
      ink: rest.ink ?? this.inkOf(style.stroke ?? '#000000'),
      weight: json(a['bt:weight']!, 'bt:weight') as Weight,
      ...(a['bt:finish'] && { finish: json(a['bt:finish'], 'bt:finish') as Finish }),
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

  /** Keeps the stacking order: an item joins the last layer when that is of its kind, else a new one on top. */
  private add(kind: 'lines' | 'shapes', item: Line | Shape): void {
    const last = this.layers[this.layers.length - 1]
    const fits = last && (last.kind === kind || (kind === 'shapes' && last.kind === 'fills'))
    const layer = fits ? last : layerOf(kind, kind === 'lines' ? 'Lines' : 'Shapes', [])
    if (!fits) this.layers.push(layer)
    ;(layer.items as (Line | Shape)[]).push(item)
  }

  /** The id that the file gives, or a fresh one where it gives none or the same one twice. */
  private idOf(given: string | undefined): string {
    const id = given && given.length <= LONGEST_ID && !this.ids.has(given) ? given : newId()
    this.ids.add(id)
    return id
  }

  private inkOf(colour: string): string {
    const known = this.inks.find((i) => i.colour === colour)
    if (known) return known.id
    const ink = { id: newId(), name: colour === '#000000' ? 'Black' : colour, colour }
    this.inks.push(ink)
    return ink.id
  }
}

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

function json(text: string, field: string): unknown {
  try {
    return JSON.parse(text) as unknown
  } catch {
    throw new InputError(field, `The live data in this SVG is damaged (${field}). Export it again.`)
  }
}
