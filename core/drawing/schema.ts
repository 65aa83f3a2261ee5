import * as yup from 'yup'
import type { Drawing, Layer, PathNode, Retouch, TraceSample } from './model'
import type { Patch } from './patch'

const LARGEST = 1e7
const MOST_LAYERS = 500
const MOST_ITEMS = 50_000
const number = () => yup.number().strict().required()
const coordinate = () => number().min(-LARGEST).max(LARGEST)
const factor = () => number().min(0).max(1000)
const share = () => yup.number().strict().min(0).max(1)
const text = (most: number) => yup.string().strict().required().max(most)
const id = () => text(80)

const isCoordinate = (v: unknown): boolean => typeof v === 'number' && v >= -LARGEST && v <= LARGEST

const isVec = (v: unknown): boolean => {
  const p = v as { x: unknown; y: unknown } | null
  return typeof p === 'object' && p !== null && isCoordinate(p.x) && isCoordinate(p.y)
}

/**
 * A list of plain records, checked by `problem` rather than a schema for each: paths and traces are long, and a schema
 * for every point would take most of the time of opening a drawing. `problem` names the field that is wrong.
 */
const records = <T extends object>(most: number, problem: (item: Partial<T>) => string | null) =>
  yup
    .array<yup.AnyObject>()
    .required()
    .max(most)
    .test((all, context) => {
      for (const [i, item] of (all ?? []).entries()) {
        const field = typeof item === 'object' && item !== null ? problem(item as Partial<T>) : 'value'
        if (field) return context.createError({ message: `${context.path}[${i}].${field} cannot be used` })
      }
      return true
    })

function nodeProblem(n: Partial<PathNode>): string | null {
  if (!isVec(n.at)) return 'at'
  if (n.in !== null && !isVec(n.in)) return 'in'
  if (n.out !== null && !isVec(n.out)) return 'out'
  return n.joint === 'corner' || n.joint === 'smooth' ? null : 'joint'
}

const nodes = records<PathNode>(20_000, nodeProblem)

const retouches = yup
  .array<yup.AnyObject>()
  .max(20_000)
  .test((all, context) => {
    const wrong = (all ?? []).findIndex((r) => {
      const { at, to } = (r ?? {}) as Partial<Retouch>
      return !isVec(at) || !(to === null || to === 'add' || (typeof to === 'object' && !nodeProblem(to)))
    })
    return wrong < 0 || context.createError({ message: `${context.path}[${wrong}] cannot be used` })
  })

export const pathSchema = yup.object({ nodes: nodes.min(1), closed: yup.boolean().strict().required() }).strict()

const widthStop = yup
  .object({ at: number().min(0).max(1), left: factor(), right: factor(), sharp: yup.boolean().strict() })
  .strict()

const taper = yup
  .object({
    length: number().min(0).max(LARGEST),
    unit: yup.string().oneOf(['px', '%']).required(),
    tip: number().min(0).max(1),
    ease: yup.string().oneOf(['straight', 'round', 'needle']).required(),
  })
  .strict()
  .nullable()
  .default(null)

/** Axes of a nib as multiples of the size. */
const axis = () => number().min(0).max(100)

const nib = yup
  .object({ width: axis(), height: axis(), angle: number().min(-360).max(360) })
  .strict()
  .nullable()
  .default(null)

/** Schema of a line's weight; also the shape of the `bt:weight` attribute. */
export const weightSchema = yup
  .object({
    size: number().min(0).max(10_000),
    stops: yup.array(widthStop.required()).required().min(1).max(1000),
    start: taper,
    end: taper,
    nib,
    pinned: yup.boolean().strict().required(),
    unlit: yup.array(widthStop.required()).min(1).max(1000).default(undefined),
  })
  .strict()

const cap = () => yup.string().oneOf(['butt', 'round', 'square']).required()

/** Schema of a profile: the course of a weight without its size. */
export const courseSchema = yup.object({ stops: weightSchema.fields.stops as yup.Schema, start: taper, end: taper }).strict()

/** Schema of a line's finish; also the shape of the `bt:finish` attribute. */
export const finishSchema = yup
  .object({
    startCap: cap(),
    endCap: cap(),
    join: yup.string().oneOf(['miter', 'round', 'bevel']).required(),
    miterLimit: number().min(1).max(1000),
    align: yup.string().oneOf(['centre', 'left', 'right']).required(),
    dash: yup.array(number().min(0).max(LARGEST)).required().max(64),
    rough: yup
      .object({ amount: number().min(0).max(1000), grain: number().min(0.1).max(10_000), seed: number().integer().min(0).max(1e9) })
      .strict()
      .default(undefined),
  })
  .strict()

const isNumber = (v: unknown): boolean => typeof v === 'number' && Number.isFinite(v)

const samples = records<TraceSample>(50_000, (s) => {
  if (!isCoordinate(s.x)) return 'x'
  if (!isCoordinate(s.y)) return 'y'
  if (!isNumber(s.t)) return 't'
  if (!isNumber(s.pressure) || s.pressure! < 0 || s.pressure! > 1) return 'pressure'
  if (s.tiltX !== undefined && !isNumber(s.tiltX)) return 'tiltX'
  return s.tiltY !== undefined && !isNumber(s.tiltY) ? 'tiltY' : null
})

const trace = yup
  .object({
    samples,
    device: yup.string().oneOf(['pen', 'mouse', 'touch', 'practice']).required(),
    steadiness: number().min(0).max(1),
    response: number().min(0.05).max(20),
    least: share(),
    most: share(),
    variation: share(),
    fromSpeed: yup.boolean().strict(),
    unevenness: share(),
    widthTolerance: share().min(0.005),
    squared: yup.boolean().strict(),
    zoom: yup.number().strict().min(1e-4).max(1e4),
  })
  .strict()
  .nullable()
  .default(null)

const snip = yup
  .object({
    from: number().min(0).max(1),
    to: number().min(0).max(1),
    fromBy: yup.string().strict().max(80),
    toBy: yup.string().strict().max(80),
    idle: yup.boolean().strict(),
  })
  .strict()

const line = yup
  .object({
    id: id(),
    path: pathSchema.required(),
    weight: weightSchema.required(),
    finish: finishSchema.required(),
    ink: id(),
    trace,
    snips: yup.array(snip.required()).required().max(1000),
    cover: yup.boolean().strict().required(),
    scrapes: yup.array(pathSchema.required()).max(20_000),
    outside: yup.string().strict().oneOf(['left', 'right']),
  })
  .strict()

const shape = yup
  .object({
    id: id(),
    contours: yup.array(pathSchema.required()).required().max(20_000),
    ink: id(),
    from: yup.array(id()).required().max(20_000),
  })
  .strict()

const sketch = yup
  .object({
    id: id(),
    image: text(64).matches(/^[0-9a-f]{64}$/),
    x: coordinate(),
    y: coordinate(),
    width: number().min(0.01).max(LARGEST),
    height: number().min(0.01).max(LARGEST),
    angle: number().min(-1e6).max(1e6),
  })
  .strict()

const itemSchema = (kind: Layer['kind']): yup.Schema => (kind === 'sketch' ? sketch : kind === 'lines' ? line : shape)

const layer = yup
  .object({
    id: id(),
    name: text(120),
    kind: yup.string().oneOf(['sketch', 'lines', 'shapes', 'fills']).required(),
    visible: yup.boolean().strict().required(),
    locked: yup.boolean().strict().required(),
    opacity: number().min(0).max(1),
    items: yup
      .array()
      .required()
      .max(MOST_ITEMS)
      .when('kind', ([kind], schema) => schema.of(itemSchema(kind as Layer['kind']).required())),
  })
  .strict()

const light = yup
  .object({
    at: yup.object({ x: coordinate(), y: coordinate() }).required().strict(),
    strength: number().min(0).max(1),
    softness: number().min(0).max(1),
    live: yup.boolean().strict().required(),
  })
  .strict()
  .default(undefined)

const ink = yup.object({ id: id(), name: text(80), colour: text(7).matches(/^#[0-9a-fA-F]{6}$/) }).strict()

/** Schema of a whole drawing: every number finite and in range, every text of sane length. */
export const drawingSchema = yup
  .object({
    id: id(),
    name: text(120).trim().min(1),
    page: yup
      .object({
        width: number().min(1).max(100_000),
        height: number().min(1).max(100_000),
        unit: yup.string().oneOf(['px', 'mm']).required(),
        pxPerMm: number().min(0.01).max(1000),
      })
      .required()
      .strict(),
    layers: yup.array(layer.required()).required().max(MOST_LAYERS),
    inks: yup.array(ink.required()).required().min(1).max(500),
    settings: yup
      .object({
        retouches,
        light,
        shapes: yup
          .object({
            unite: yup.boolean().strict().required(),
            tolerance: number().min(0.001).max(10),
            simplify: number().min(0).max(50),
          })
          .required()
          .strict(),
      })
      .required()
      .strict(),
  })
  .strict()

/**
 * The value as a drawing.
 *
 * @throws yup.ValidationError whose `path` and `message` name the first thing that is wrong
 */
export function checkDrawing(value: unknown): Drawing {
  const drawing = drawingSchema.validateSync(value, { abortEarly: true }) as Drawing
  checkLists(drawing)
  return drawing
}

/** What is wrong with an item of a layer, in a sentence, or null. */
export function itemProblem(kind: Layer['kind'], item: unknown): string | null {
  try {
    itemSchema(kind).validateSync(item, { abortEarly: true })
    return null
  } catch (e) {
    return `${(e as Error).message}.`
  }
}

/**
 * Checks the parts of `drawing` that `patches` touched, so that a small edit of a large drawing is checked fast.
 *
 * @throws yup.ValidationError as `checkDrawing`
 */
export function checkTouched(drawing: Drawing, patches: readonly Patch[]): void {
  const layers = new Map(drawing.layers.map((l) => [l.id, l]))
  const added = new Set<unknown>()
  const bare = new Set<Layer>()
  let outside = false
  // What was done to a layer before it was taken away is no part of one that has its id now.
  const gone = new Map<unknown, number>()
  patches.forEach(({ op, path }, i) => op === 'remove' && path.length === 2 && path[0] === 'layers' && gone.set(path[1], i))
  for (const [i, { op, path, value }] of patches.entries()) {
    const [root, at, list, , ...fields] = path
    const here = i < (gone.get(at) ?? -1) ? undefined : layers.get(String(at))
    if (op === 'add') added.add((value as { id?: unknown } | null)?.id)
    if (root !== 'layers') outside = true
    else if (path.length <= 2) {
      if (op !== 'add') continue
      layer.validateSync(value)
      for (const item of (value as Layer).items) added.add(item.id)
    } else if (!here) continue // A later patch takes the layer away again: nothing is left to check.
    else if (list !== 'items') bare.add(here)
    else if (fields.length) (yup.reach(itemSchema(here.kind), fields.join('.')) as yup.Schema).validateSync(value)
    else if (op === 'add') itemSchema(here.kind).validateSync(value)
  }
  // However many patches there are, each of these is looked at once.
  if (outside) drawingSchema.validateSync({ ...drawing, layers: [] })
  for (const here of bare) layer.validateSync({ ...here, items: [] })
  if (added.size) checkLists(drawing, added)
}

/** Lists have their limits, and everything is found by its id, so no two of the parts that are asked about may share one. */
function checkLists(drawing: Drawing, asked?: ReadonlySet<unknown>): void {
  const full = drawing.layers.find((l) => l.items.length > MOST_ITEMS)
  if (full) throw new yup.ValidationError(`layer "${full.name}" is full: it holds ${MOST_ITEMS} lines`, full.id, 'layers')
  if (drawing.layers.length > MOST_LAYERS) throw new yup.ValidationError(`a drawing holds ${MOST_LAYERS} layers at most`, null, 'layers')
  for (const all of [drawing.inks, drawing.layers, drawing.layers.flatMap((l): { id: string }[] => l.items)]) {
    const seen = new Set<string>()
    for (const { id: name } of all) {
      if (asked && !asked.has(name)) continue
      if (seen.has(name)) throw new yup.ValidationError(`two parts have the id "${name}"`, name, 'layers')
      seen.add(name)
    }
  }
}
