import type { SaxesAttributeNS } from 'saxes'
import { newDrawing } from '../../drawing/create'
import { newId } from '../../new-id'
import type { Drawing } from '../../drawing/model'
import { newDocument } from '../../drawing/earlier'
import { checkDrawing } from '../../drawing/check-drawing'
import { InputError } from '../../errors'
import { readXml } from '../xml'
import { SvgReader } from './read-elements'
import { BT_NAMESPACE } from './write-svg'

export interface ParseOptions {
  /** Name for a drawing whose file carries none. */
  name?: string
}

/**
 * An SVG file as a drawing: strokes become lines, fills become shapes, and live data in the `urn:bellatrait:1`
 * namespace is taken up as it was. Scripts, external references and what cannot be inked are left out with a warning.
 *
 * @throws InputError with a sentence for people when the text is not SVG, is hostile or too large
 */
export function parseSvg(text: string, options: ParseOptions = {}): { drawing: Drawing; warnings: string[] } {
  const reader = new SvgReader()
  readXml(text, 'SVG', 'svg', {
    open: (name, attributes) => reader.open(name, attributesOf(attributes)),
    close: () => reader.close(),
    text: (t) => reader.text(t),
  })
  const { page, name, inks, settings, amendments, fills, isFirstForm, layers } = reader.result()
  const [lost] = reader.losses
  if (lost && layers.every((l) => !l.items.length)) throw new InputError('file', `Nothing in this SVG can be used. ${lost}.`)
  const blank = newDrawing(name ?? options.name ?? 'Untitled', { id: newId(), ...(page && { page }), ...(amendments && { amendments }), ...(fills && { fills }), inks, layers })
  // Drawings by other hands stay as they look: their ends show as they were left.
  const drawing = { ...blank, settings: settings ?? { ...blank.settings, tuck: false } }
  try {
    return { drawing: checkDrawing(settings && isFirstForm ? newDocument(drawing) : drawing), warnings: reader.warnings() }
  } catch (e) {
    throw new InputError('file', `This SVG holds a value that cannot be used: ${(e as Error).message}.`)
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
