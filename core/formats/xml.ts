import type { SaxesAttributeNS, SaxesTagNS } from 'saxes'
import { SaxesParser } from 'saxes'
import { InputError } from '../errors'

/** Longest text that is read, characters. */
export const LONGEST = 32_000_000
const DEEPEST = 256
const MOST_ELEMENTS = 200_000

/** What hears of a file's elements as they are read. */
export interface XmlReader {
  open(name: string, attributes: Record<string, SaxesAttributeNS>): void
  close(name: string): void
  text(text: string): void
}

/**
 * Reads an XML file, guarded against hostile ones.
 *
 * @param kind the file's kind in words for people ("SVG")
 * @param root local name of its first element
 * @throws InputError with a sentence for people when the text is not such a file, is hostile or too large
 */
export function readXml(text: string, kind: string, root: string, reader: XmlReader): void {
  if (text.length > LONGEST)
    throw new InputError('file', `This ${kind} file is larger than 32 MB. Export it with less detail and try again.`)
  if (!text.trim()) throw new InputError('file', `This file is empty: it holds no ${kind}.`)
  const parser = new SaxesParser({ xmlns: true, position: true })
  let elements = 0
  let depth = 0
  let failure: InputError | null = null
  const fail = (message: string): void => {
    failure ??= new InputError('file', message)
    throw failure
  }
  parser.on('error', (e) => fail(`This file is not well-formed ${kind} (${e.message.replace(/^[\d:]+\s*|\.$/g, '')}).`))
  parser.on('doctype', (doctype) => {
    if (/<!ENTITY/i.test(doctype))
      fail(`This ${kind} file defines its own entities, which can be used to attack a reader. Save it without them.`)
  })
  parser.on('opentag', (tag: SaxesTagNS) => {
    if (++elements > MOST_ELEMENTS) fail(`This ${kind} file has more than 200,000 elements. Split it and try again.`)
    if (++depth > DEEPEST)
      fail(`This ${kind} file is nested more than 256 levels deep. Flatten its groups and try again.`)
    if (elements === 1 && tag.local !== root) fail(`This is no ${kind} file: it begins with <${tag.local}>.`)
    reader.open(tag.local, tag.attributes)
  })
  parser.on('closetag', (tag) => {
    depth--
    reader.close(tag.local)
  })
  parser.on('text', (t) => reader.text(t))
  parser.write(text).close()
}
