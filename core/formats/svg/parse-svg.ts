import type { SaxesAttributeNS, SaxesTagNS } from 'saxes'
import { SaxesParser } from 'saxes'
import { newDrawing, newId } from '../../drawing/create'
import type { Drawing } from '../../drawing/model'
import { checkDrawing } from '../../drawing/schema'
import { InputError } from '../../errors'
import { SvgReader } from './read-elements'
import { BT_NAMESPACE } from './write-svg'

export interface ParseOptions {
  /** Name for a drawing whose file carries none. */
  name?: string
}

/** Longest text that is read, characters. */
export const LONGEST = 32_000_000
const DEEPEST = 256
const MOST_ELEMENTS = 200_000

/**
 * An SVG file as a drawing: strokes become lines, fills become shapes, and live data in the `urn:bellatrait:1`
 * namespace is taken up as it was. Scripts, external references and what cannot be inked are left out with a warning.
 *
 * @throws InputError with a sentence for people when the text is not SVG, is hostile or too large
 */
export function parseSvg(text: string, options: ParseOptions = {}): { drawing: Drawing; warnings: string[] } {
  if (text.length > LONGEST) throw new InputError('file', 'This SVG is larger than 32 MB. Export it with less detail and try again.')
  if (!text.trim()) throw new InputError('file', 'This file is empty: it holds no SVG.')
  const reader = new SvgReader()
  const parser = new SaxesParser({ xmlns: true, position: true })
  let elements = 0
  let depth = 0
  let failure: InputError | null = null
  const fail = (message: string): void => {
    failure ??= new InputError('file', message)
    throw failure
  }
  parser.on('error', (e) => fail(`This file is not well-formed SVG (${e.message.replace(/^[\d:]+\s*/, '')}).`))
  parser.on('doctype', (doctype) => {
    if (/<!ENTITY/i.test(doctype)) fail('This SVG defines its own entities, which can be used to attack a reader. Save it without them.')
  })
  parser.on('opentag', (tag) => {
    if (++elements > MOST_ELEMENTS) fail('This SVG has more than 200,000 elements. Split it and try again.')
    if (++depth > DEEPEST) fail('This SVG is nested more than 256 levels deep. Flatten its groups and try again.')
    if (elements === 1 && tag.local !== 'svg') fail(`This is not an SVG file: it begins with <${tag.local}>.`)
    reader.open(tag.local, attributesOf(tag))
  })
  parser.on('closetag', () => {
    depth--
    reader.close()
  })
  parser.on('text', (t) => reader.text(t))
  parser.write(text).close()
  const { page, name, inks, settings, layers } = reader.result()
  const drawing = newDrawing(name ?? options.name ?? 'Untitled', {
    id: newId(),
    ...(page && { page }),
    ...(settings && { settings }),
    inks,
    layers,
  })
  try {
    return { drawing: checkDrawing(drawing), warnings: reader.warnings() }
  } catch (e) {
    throw new InputError('file', `This SVG holds a value that cannot be used: ${(e as Error).message}.`)
  }
}

/** Attributes by local name; those of our namespace under `bt:name`. */
function attributesOf(tag: SaxesTagNS): Record<string, string> {
  const out: Record<string, string> = Object.create(null) as Record<string, string>
  for (const a of Object.values(tag.attributes) as SaxesAttributeNS[]) {
    if (a.uri === BT_NAMESPACE) out[`bt:${a.local}`] = a.value
    else if (a.prefix === 'xlink') out[`xlink:${a.local}`] = a.value
    else if (!a.prefix) out[a.local] = a.value
  }
  return out
}
