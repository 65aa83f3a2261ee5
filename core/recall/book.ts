import { checksumOf, entriesOf, pageOf } from './page'
import type { Recall } from './recall'

interface Entry {
  numbers: Float64Array
  /** Of numbers that were read and not looked at yet. */
  checksum: number | null
  /** A page holds it. */
  isWritten: boolean
  /** It was wanted since this book was opened. */
  isWanted: boolean
  /** Lives for as long as the result is in use; null where nobody can tell. */
  owner: WeakRef<object> | null
}

/** Whether nobody holds the result any more. */
const isDead = ({ owner }: Entry): boolean => owner !== null && owner.deref() === undefined

/** Whether the numbers are as they were written. */
function isWhole(entry: Entry): boolean {
  if (entry.checksum !== null && checksumOf(entry.numbers) !== entry.checksum) return false
  entry.checksum = null
  return true
}

/**
 * What was worked out of one drawing, by what went in: written as pages of bytes and read back from them. A page of another
 * engine, a page cut off and numbers that are damaged are as if they had never been. What was made of states that nobody
 * holds any more is dropped when pages are written.
 */
export class Book implements Recall {
  private readonly entries = new Map<string, Entry>()

  /** @param engine the version of the engine, at most 16 letters of ASCII: what another one made is not read */
  constructor(private readonly engine: string) {}

  find(key: string): Float64Array | null {
    const entry = this.entries.get(key)
    if (!entry) return null
    if (!isWhole(entry)) {
      this.entries.delete(key)
      return null
    }
    entry.isWanted = true
    return entry.numbers
  }

  keep(key: string, numbers: Float64Array): void {
    // A key is all that went in: what is there already is the same.
    const known = this.entries.get(key)
    if (known && isWhole(known)) {
      known.isWanted = true
      return
    }
    this.entries.set(key, { numbers, checksum: null, isWritten: false, isWanted: true, owner: null })
  }

  own(key: string, owner: object): void {
    const entry = this.entries.get(key)
    if (entry) entry.owner = new WeakRef(owner)
  }

  /** How many bytes the numbers take that no page holds yet. */
  get fresh(): number {
    let bytes = 0
    for (const { numbers, isWritten } of this.entries.values()) if (!isWritten) bytes += numbers.byteLength
    return bytes
  }

  /**
   * Takes in what a page holds, as far as it is whole and of this engine.
   *
   * @param isWritten the page is kept where this book's are; otherwise what it holds is new
   */
  read(page: Uint8Array, isWritten = true): void {
    for (const { key, numbers, checksum } of entriesOf(page, this.engine))
      if (!this.entries.has(key)) this.entries.set(key, { numbers, checksum, isWritten, isWanted: false, owner: null })
  }

  /** Nothing was worked out yet, or nothing that is still known. */
  get isEmpty(): boolean {
    return !this.entries.size
  }

  /** A page of all that no page holds yet. */
  written(): Uint8Array {
    this.drop(isDead)
    return this.page(([, e]) => !e.isWritten)
  }

  /** One page of everything, in place of all others. What was read and not wanted since goes once it is the greater part. */
  rewritten(): Uint8Array {
    const all = [...this.entries.values()]
    const unwanted = all.filter((e) => !e.isWanted).length
    this.drop((e) => isDead(e) || (!e.isWanted && 2 * unwanted > all.length))
    return this.everything()
  }

  /** One page of all that there is. */
  everything(): Uint8Array {
    return this.page(([, entry]) => isWhole(entry))
  }

  private drop(isGone: (entry: Entry) => boolean): void {
    for (const [key, entry] of this.entries) if (isGone(entry)) this.entries.delete(key)
  }

  private page(isOnIt: (entry: [string, Entry]) => boolean): Uint8Array {
    const entries = [...this.entries].filter(isOnIt)
    for (const [, entry] of entries) entry.isWritten = true
    return pageOf(
      this.engine,
      entries.map(([key, { numbers }]) => [key, numbers]),
    )
  }
}
