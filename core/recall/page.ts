import CRC32 from 'crc-32'

/** A page begins with this word and the engine's version; then how many entries there are, and the checksum of their list. */
const MARK = 'recalled 1'
const MARK_BYTES = 16
const VERSION_BYTES = 16
/** Eight letters of 16 bits. */
const KEY_BYTES = 16
const HEAD = MARK_BYTES + VERSION_BYTES + 8
/** Of an entry in the list: its key, how many bytes its numbers take, and their checksum. */
const ENTRY = KEY_BYTES + 8

/** Numbers on a page, with their checksum as it was written. */
export interface PageEntry {
  key: string
  numbers: Float64Array
  checksum: number
}

/** CRC-32 of numbers, a signed whole number. */
export const checksumOf = ({ buffer, byteOffset, byteLength }: Float64Array): number =>
  CRC32.buf(new Uint8Array(buffer, byteOffset, byteLength))

/**
 * Entries as bytes: a list of all with their checksums, then their numbers, each at a multiple of eight.
 *
 * @param engine the engine's version, at most 16 letters of ASCII
 */
export function pageOf(
  engine: string,
  entries: readonly (readonly [key: string, numbers: Float64Array])[],
): Uint8Array {
  const listed = HEAD + ENTRY * entries.length
  const numbersAt = Math.ceil(listed / 8) * 8
  const page = new Uint8Array(entries.reduce((n, [, numbers]) => n + numbers.byteLength, numbersAt))
  const view = new DataView(page.buffer)
  write(page, 0, MARK)
  write(page, MARK_BYTES, engine)
  const floats = new Float64Array(page.buffer)
  let at = numbersAt
  entries.forEach(([key, numbers], i) => {
    const own = HEAD + ENTRY * i
    for (let k = 0; k < key.length; k++) view.setUint16(own + 2 * k, key.charCodeAt(k), true)
    view.setUint32(own + KEY_BYTES, numbers.byteLength, true)
    view.setInt32(own + KEY_BYTES + 4, checksumOf(numbers), true)
    floats.set(numbers, at / 8)
    at += numbers.byteLength
  })
  view.setUint32(MARK_BYTES + VERSION_BYTES, entries.length, true)
  view.setInt32(HEAD - 4, CRC32.buf(page.subarray(HEAD, listed)), true)
  return page
}

/** What a page holds that is whole as far as its list says; nothing of one of another engine, damaged or cut off. */
export function entriesOf(page: Uint8Array, engine: string): PageEntry[] {
  if (page.length < HEAD || page.byteOffset % 8) return []
  const view = new DataView(page.buffer, page.byteOffset, page.length)
  const count = view.getUint32(MARK_BYTES + VERSION_BYTES, true)
  const listed = HEAD + ENTRY * count
  if (!isWritten(page, 0, MARK) || !isWritten(page, MARK_BYTES, engine) || listed > page.length) return []
  if (CRC32.buf(page.subarray(HEAD, listed)) !== view.getInt32(HEAD - 4, true)) return []
  const entries: PageEntry[] = []
  let at = Math.ceil(listed / 8) * 8
  for (let own = HEAD; own < listed; own += ENTRY) {
    const bytes = view.getUint32(own + KEY_BYTES, true)
    if (at + bytes > page.length) break
    entries.push({
      key: keyAt(view, own),
      numbers: new Float64Array(page.buffer, page.byteOffset + at, bytes / 8),
      checksum: view.getInt32(own + KEY_BYTES + 4, true),
    })
    at += bytes
  }
  return entries
}

function keyAt(view: DataView, at: number): string {
  let key = ''
  for (let k = 0; k < KEY_BYTES; k += 2) key += String.fromCharCode(view.getUint16(at + k, true))
  return key
}

function write(page: Uint8Array, at: number, letters: string): void {
  for (let i = 0; i < letters.length; i++) page[at + i] = letters.charCodeAt(i)
}

/** Whether a word of at most 16 letters stands at a place, and nothing after it. */
function isWritten(page: Uint8Array, at: number, letters: string): boolean {
  for (let i = 0; i < MARK_BYTES; i++) if (page[at + i] !== (letters.charCodeAt(i) || 0)) return false
  return true
}
