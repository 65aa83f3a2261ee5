import { expose, transfer } from 'comlink'
import type { CrestKind, Crests } from '#core/sketch/crests'
import { findCrests } from '#core/sketch/crests'
import type { CleanSettings, Crop, Sketch } from '#core/model/model'
import { mapPath } from '#core/geometry/path'
import type { ColourImage } from '#core/sketch/clean'
import { cleaned } from '#core/sketch/clean'
import type { GreyImage } from '#core/sketch/grey-image'
import { partOf } from '#core/sketch/grey-image'
import { findPaper } from '#core/sketch/paper-corners'
import type { ProposeOptions, Proposal } from '#core/sketch/propose-lines'
import { findLines } from '#core/sketch/propose-lines'
import { atOnce, inTurns } from '#core/turns'
import type { SketchSource } from './read-picture'
import { readColours, readSketch } from './read-picture'

/** The sketch that was prepared last: its settings change more often than it does. */
let known: { key: string; image: GreyImage | null } | null = null

const UNREAD = 'The picture of this sketch could not be read. Bring it in again as PNG, JPEG or WebP.'

async function madeClean(source: SketchSource, clean: CleanSettings): Promise<ColourImage | null> {
  const key = JSON.stringify(source)
  if (known?.key !== key) known = { key, image: await readSketch(source) }
  return known.image && cleaned(known.image, clean)
}

async function inColour(source: SketchSource): Promise<ColourImage | null> {
  const read = await readColours(source)
  if (!read) return null
  const rgba = new Uint8ClampedArray(4 * read.width * read.height)
  for (let i = 0, k = 0; k < rgba.length; i++, k += 4) {
    rgba[k] = read.red[i]!
    rgba[k + 1] = read.green[i]!
    rgba[k + 2] = read.blue[i]!
    rgba[k + 3] = 255
  }
  return { width: read.width, height: read.height, rgba }
}

/** Reads sketches away from the hand; ended, with what it is at, when the person says stop. */
const sketches = {
  /** Lines in the picture at an address, with the size that they are told in; or the sentence that says why there are none. */
  async propose(
    source: SketchSource,
    options: ProposeOptions & { part?: Crop },
    onProgress: (share: number) => void,
  ): Promise<{ width: number; height: number; proposals: Proposal[] } | { problem: string }> {
    const whole = await readSketch(source)
    if (!whole) return { problem: UNREAD }
    const { part, ...rest } = options
    const cut = part && partOf(whole, part)
    const image = cut?.image ?? whole
    const proposals = await inTurns(findLines(image, { ...rest, whole: Math.max(whole.width, whole.height) }), {
      turn: 40,
      rest: () => new Promise((resolve) => setTimeout(resolve)),
      go: (share) => {
        onProgress(share)
        return true
      },
    })
    const placed = cut
      ? proposals!.map((p) => ({ ...p, path: mapPath(p.path, ({ x, y }) => ({ x: x + cut.left, y: y + cut.top })) }))
      : proposals!
    return { width: whole.width, height: whole.height, proposals: placed }
  },

  /** The crests of the pencil in the picture at an address; or the sentence that says why there are none. */
  async crests(source: SketchSource, kind: CrestKind): Promise<Crests | { problem: string }> {
    const image = await readSketch(source)
    if (!image) return { problem: UNREAD }
    const crests = atOnce(findCrests(image, kind))
    return transfer(crests, [crests.strength.buffer as ArrayBuffer, crests.way.buffer as ArrayBuffer])
  },

  /** A sketch as it is to be seen: set right, cropped, from its side, and clean. */
  async prepare(source: SketchSource, clean: CleanSettings | null): Promise<ImageBitmap | { problem: string }> {
    const made = clean ? await madeClean(source, clean) : await inColour(source)
    if (!made) return { problem: UNREAD }
    const bitmap = await createImageBitmap(new ImageData(made.rgba, made.width, made.height))
    return transfer(bitmap, [bitmap])
  },

  /** The corners of the paper in a picture, as shares of its size; null where none is seen. */
  async paper(picture: string): Promise<Sketch['corners'] | null | { problem: string }> {
    const image = await readSketch({ image: picture })
    if (!image) return { problem: UNREAD }
    const quad = findPaper(image)
    return quad && (quad.map(({ x, y }) => ({ x: x / image.width, y: y / image.height })) as Sketch['corners'])
  },
}

export type SketchWorker = typeof sketches

expose(sketches)
