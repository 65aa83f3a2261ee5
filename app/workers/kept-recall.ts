import { Book } from '#core/recall/book'
import { ENGINE_VERSION } from './engine-version'
import { isCrowded, keepPage, readPages } from './recall-store'

/** So much must be new for a page of it, bytes. */
const LEAST = 32 * 1024

/** So long after a page was written the next one is, at the earliest, ms. */
const APART = 30_000

/** What this browser has to be there to be read within so long, or it is worked out again, ms. */
const LONGEST = 1500

/** What was worked out of one drawing in this browser, kept from one life of the application to the next. */
export class KeptRecall {
  private constructor(
    private readonly drawing: string,
    readonly book: Book,
  ) {}

  /** Null where the engine's version is not known: what it works out changes while it is developed. */
  static async open(drawing: string): Promise<KeptRecall | null> {
    if (!ENGINE_VERSION) return null
    const book = new Book(ENGINE_VERSION)
    const late = new Promise<Uint8Array[]>((resolve) => setTimeout(() => resolve([]), LONGEST))
    try {
      for (const page of await Promise.race([readPages(drawing), late])) book.read(page)
    } catch (e) {
      console.warn('What was worked out before could not be read:', (e as Error).message)
    }
    return new KeptRecall(drawing, book)
  }

  private written = -Infinity

  /** In how many ms the next page may be written. */
  get due(): number {
    return Math.max(0, this.written + APART - performance.now())
  }

  /** Writes what is new, if that is worth it. Where it cannot be kept it is worked out again another time. */
  async write(): Promise<void> {
    if (this.book.fresh < LEAST) return
    this.written = performance.now()
    try {
      const inPlace = await isCrowded(this.drawing)
      await keepPage(this.drawing, inPlace ? this.book.rewritten() : this.book.written(), inPlace)
    } catch (e) {
      console.warn('What was worked out could not be kept:', (e as Error).message)
    }
  }
}
