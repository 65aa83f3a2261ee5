import CRC32 from 'crc-32'
import { Zlib } from 'fflate'
import { InputError } from '../../errors'

export interface PngOptions {
  /** px */
  width: number
  height: number
  /** What is kept of the dots that come in: all four channels, three, or one bit (dark is ink). */
  tones: 'rgba' | 'rgb' | 'one-bit'
  /** Dots to an inch, told to whoever prints it; null says nothing. */
  dpi: number | null
}

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]
const COLOUR_TYPE = { rgba: 6, rgb: 2, 'one-bit': 0 } as const
const CHANNELS = { rgba: 4, rgb: 3 } as const
const MM_PER_INCH = 25.4

/** Flat art packs as well at a low level, in a third of the time. */
const LEVEL = 2

/**
 * A PNG (W3C, Portable Network Graphics, 2003) written in bands of rows from the top, so that a picture of hundreds of
 * megapixels never stands in memory at once. Each row is told as its difference from the one above.
 *
 * @throws InputError for a size that no PNG has
 */
export class PngWriter {
  private readonly pieces: Uint8Array[] = []
  private readonly zlib: Zlib
  private packed: Uint8Array[] = []
  private above: Uint8Array
  private row = 0

  constructor(private readonly options: PngOptions) {
    const { width, height, tones, dpi } = options
    for (const [name, v] of [
      ['width', width],
      ['height', height],
    ] as const)
      if (!Number.isInteger(v) || v < 1 || v > 0x7fffffff)
        throw new InputError(name, `A picture's ${name} must be a whole number of pixels from 1, not ${v}.`)
    this.above = new Uint8Array(this.rowLength)
    this.zlib = new Zlib({ level: LEVEL }, (piece) => this.packed.push(piece))
    this.pieces.push(Uint8Array.from(SIGNATURE))
    this.chunk('IHDR', [
      ...bigEndian(width),
      ...bigEndian(height),
      tones === 'one-bit' ? 1 : 8,
      COLOUR_TYPE[tones],
      0,
      0,
      0,
    ])
    if (dpi) {
      const perMetre = Math.round((dpi * 1000) / MM_PER_INCH)
      this.chunk('pHYs', [...bigEndian(perMetre), ...bigEndian(perMetre), 1])
    }
  }

  /** Takes the next rows: four bytes a dot, as a canvas has them, not multiplied by their opacity. */
  add(rgba: Uint8Array | Uint8ClampedArray): void {
    const { width, tones } = this.options
    const rows = rgba.length / (4 * width)
    const out = new Uint8Array(rows * (this.rowLength + 1))
    for (let y = 0, to = 0; y < rows; y++) {
      const row = this.rowOf(rgba, y * width * 4)
      out[to++] = tones === 'one-bit' ? 0 : 2
      if (tones === 'one-bit') out.set(row, to)
      else for (let i = 0; i < row.length; i++) out[to + i] = row[i]! - this.above[i]!
      to += row.length
      this.above = row
    }
    this.row += rows
    this.zlib.push(out, this.row >= this.options.height)
    this.flush()
  }

  /** The file, in pieces. */
  end(): Uint8Array[] {
    if (this.row !== this.options.height)
      throw new InputError('height', `The picture has ${this.row} of ${this.options.height} rows.`)
    this.chunk('IEND', [])
    return this.pieces
  }

  private get rowLength(): number {
    const { width, tones } = this.options
    return tones === 'one-bit' ? Math.ceil(width / 8) : width * CHANNELS[tones]
  }

  private rowOf(rgba: Uint8Array | Uint8ClampedArray, from: number): Uint8Array {
    const { width, tones } = this.options
    if (tones === 'rgba') return Uint8Array.from(rgba.subarray(from, from + width * 4))
    const row = new Uint8Array(this.rowLength)
    for (let x = 0, i = from; x < width; x++, i += 4) {
      if (tones === 'rgb') {
        row[x * 3] = rgba[i]!
        row[x * 3 + 1] = rgba[i + 1]!
        row[x * 3 + 2] = rgba[i + 2]!
      } else if (!isInk(rgba, i)) row[x >> 3]! |= 0x80 >> (x & 7)
    }
    return row
  }

  private flush(): void {
    for (const piece of this.packed) if (piece.length) this.chunk('IDAT', piece)
    this.packed = []
  }

  private chunk(name: string, data: ArrayLike<number>): void {
    const chunk = new Uint8Array(12 + data.length)
    chunk.set(bigEndian(data.length), 0)
    for (let i = 0; i < 4; i++) chunk[4 + i] = name.charCodeAt(i)
    chunk.set(data, 8)
    chunk.set(bigEndian(CRC32.buf(chunk.subarray(4, 8 + data.length))), 8 + data.length)
    this.pieces.push(chunk)
  }
}

/** Whether a dot on white paper is more black than white (ITU-R BT.709 luma). */
function isInk(rgba: ArrayLike<number>, i: number): boolean {
  const luma = 0.2126 * rgba[i]! + 0.7152 * rgba[i + 1]! + 0.0722 * rgba[i + 2]!
  const opacity = rgba[i + 3]! / 255
  return luma * opacity + 255 * (1 - opacity) < 127.5
}

const bigEndian = (v: number): number[] => [(v >>> 24) & 255, (v >>> 16) & 255, (v >>> 8) & 255, v & 255]
