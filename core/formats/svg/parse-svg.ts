import type { SaxesAttributeNS } from 'saxes'
import { newDrawing } from '../../model/create'
import { newId } from '../../new-id'
import type { Drawing, Page } from '../../model/model'
import { newDocument } from '../../document/earlier'
import { checkDrawing } from '../../document/check-drawing'
import { InputError } from '../../errors'
import { IDENTITY } from '../../geometry/matrix'
import { readXml } from '../xml'
import type { ImportNote } from './drawing-builder'
import { DrawingBuilder } from './drawing-builder'
import type { SvgElement } from './element'
import { ElementTree } from './element'
import { lengthOf } from './lengths'
import { record } from './live-data'
import { SvgReader } from './read-elements'
import { declareStyles } from './sheets'
import type { ViewBox } from './viewport'
import { fitted, viewBoxOf } from './viewport'
import { BT_NAMESPACE } from './write-svg'

export interface ParseOptions {
  /** Name for a drawing whose file carries none. */
  name?: string
}

export interface ParsedSvg {
  drawing: Drawing
  /** What came otherwise than the file has it, a sentence each, with how often. */
  warnings: string[]
  /** The same, with where on the page. */
  notes: ImportNote[]
}

const LONGEST_NAME = 120
/** Page of a file that says nothing of its size (CSS 2, replaced elements). */
const UNSAID = { width: 300, height: 150 }
/** What is cut, and strokes that become outlines, lie within this share of the page's longer side. */
const FINE = 1 / 40_000

/**
 * An SVG file as a drawing: strokes become lines, fills become shapes, and live data in the `urn:bellatrait:1`
 * namespace is taken up as it was. Reuse, style sheets, clips and even-odd fills come in as they look. Scripts, external
 * references and what cannot be inked are left out with a warning.
 *
 * @throws InputError with a sentence for people when the text is not SVG, is hostile or too large
 */
export function parseSvg(text: string, options: ParseOptions = {}): ParsedSvg {
  const tree = new ElementTree()
  readXml(text, 'SVG', 'svg', {
    open: (name, attributes) => tree.open(name, attributesOf(attributes)),
    close: () => tree.close(),
    text: (t) => tree.text(t),
  })
  const root = tree.root!
  const into = new DrawingBuilder()
  const lost = declareStyles(root)
  if (lost) into.note(lost === 1 ? 'A style rule was left out' : `${lost} style rules were left out`)
  const live = root.attributes['bt:drawing']
    ? (record(root.attributes['bt:drawing'], 'bt:drawing') as Partial<Drawing>)
    : null
  if (live) into.inks.push(...(Array.isArray(live.inks) ? live.inks : []))
  const { page, matrix, port } = live
    ? { page: live.page ?? null, matrix: IDENTITY, port: { x: 0, y: 0, ...UNSAID } }
    : sizeOf(root)
  const reader = new SvgReader(root, into, Math.max(page?.width ?? UNSAID.width, page?.height ?? UNSAID.height) * FINE)
  reader.read(matrix, port, !!live)
  const { inks, layers } = into.result()
  if (reader.firstLoss && layers.every((l) => !l.items.length))
    throw new InputError('file', `Nothing in this SVG can be used. ${reader.firstLoss}.`)
  const title = root.children.find((c) => c.tag === 'title')?.text
  const name = nameFrom(live ? live.name : title) ?? nameFrom(options.name) ?? 'Untitled'
  const blank = newDrawing(name, {
    id: newId(),
    ...(page && { page }),
    ...(live?.amendments && { amendments: live.amendments }),
    ...(live?.fills && { fills: live.fills }),
    inks,
    layers,
  })
  // Drawings by other hands stay as they look: their ends show as they were left.
  const drawing = { ...blank, settings: live?.settings ?? { ...blank.settings, tuck: false } }
  const notes = into.notes()
  try {
    return {
      drawing: checkDrawing(live?.settings && !('form' in live) ? newDocument(drawing) : drawing),
      notes,
      warnings: notes.map(({ text, count }) => (count > 1 ? `${text} (${count} times)` : text)),
    }
  } catch (e) {
    throw new InputError('file', `This SVG holds a value that cannot be used: ${(e as Error).message}.`)
  }
}

const nameFrom = (text: unknown): string | null =>
  typeof text === 'string' && text.trim() ? text.trim().slice(0, LONGEST_NAME).trim() : null

const PX_PER_MM = 96 / 25.4
/** Units of a file that say how large they are on paper are px where so many of them are a mm. */
const COARSEST = 0.5
const FINEST = 200
const isPhysical = (text: string | undefined): boolean => /(mm|cm|in|pt|pc|q)\s*$/i.test(text ?? '')

/** The page of a file, how its user space comes to lie there, and that space's viewport. */
function sizeOf({ attributes: a }: SvgElement): {
  page: Page | null
  matrix: ReturnType<typeof fitted>
  port: ViewBox
} {
  const box = viewBoxOf(a.viewBox)
  const given = (name: 'width' | 'height'): number | undefined => {
    const v = /%\s*$/.test(a[name] ?? '%') ? undefined : lengthOf(a[name], { whole: 0 })
    return v && v > 0 ? v : undefined
  }
  const [w, h] = [given('width'), given('height')]
  const ratio = box ? box.width / box.height : UNSAID.width / UNSAID.height
  const width = w ?? (h ? h * ratio : (box?.width ?? UNSAID.width))
  const height = h ?? (w ? w / ratio : (box?.height ?? UNSAID.height))
  if (box && w && h && isPhysical(a.width) && isPhysical(a.height)) {
    // A size on paper says how large a unit is: the file's own units stay as they are.
    const pxPerMm = (box.width * PX_PER_MM) / w
    const even = Math.abs((h / w) * (box.width / box.height) - 1) < 0.005
    if (even && pxPerMm >= COARSEST && pxPerMm <= FINEST) {
      return {
        page: { width: box.width, height: box.height, unit: 'mm', pxPerMm },
        matrix: fitted(box, { x: 0, y: 0, width: box.width, height: box.height }),
        port: box,
      }
    }
  }
  const page: Page | null = box || w || h ? { width, height, unit: 'px', pxPerMm: PX_PER_MM } : null
  return {
    page,
    matrix: fitted(box, { x: 0, y: 0, width, height }, a.preserveAspectRatio),
    port: box ?? { x: 0, y: 0, width, height },
  }
}

/** Attributes by local name; those of our namespace under `bt:name`. */
function attributesOf(attributes: Record<string, SaxesAttributeNS>): Record<string, string> {
  const out: Record<string, string> = Object.create(null) as Record<string, string>
  for (const a of Object.values(attributes)) {
    if (a.uri === BT_NAMESPACE) out[`bt:${a.local}`] = a.value
    else if (a.prefix === 'xlink') out[`xlink:${a.local}`] = a.value
    else if (!a.prefix) out[a.local] = a.value
  }
  return out
}
