import type { UnzipFileInfo } from 'fflate'
import { unzipSync, Zip, ZipDeflate, ZipPassThrough } from 'fflate'

/** A file of an archive; its path has parts between slashes. */
export interface ArchiveFile {
  path: string
  bytes: Uint8Array
  /** Whether it is packed already, as pictures are. */
  packed?: boolean
}

/** How much is unpacked at most. */
export interface ArchiveLimits {
  /** Files. */
  files: number
  /** Bytes of all files together, unpacked. */
  bytes: number
}

/** An archive that cannot be used; its message is a sentence that says what to do. */
export class BadArchive extends Error {}

/** Dates in an archive are the same whenever it is made, so that the same files give the same archive. */
const MADE = new Date('2026-01-01T12:00:00')

/** Writes an archive file by file; what is made so far is handed out in pieces, so that no more than a file is held at a time. */
export class ZipWriter {
  private made: Uint8Array[] = []
  private readonly zip = new Zip((error, piece) => {
    if (error) throw error
    this.made.push(piece)
  })

  add({ path, bytes, packed }: ArchiveFile): Uint8Array[] {
    const entry = packed ? new ZipPassThrough(path) : new ZipDeflate(path, { level: 6 })
    entry.mtime = MADE
    this.zip.add(entry)
    entry.push(bytes, true)
    return this.taken()
  }

  end(): Uint8Array[] {
    this.zip.end()
    return this.taken()
  }

  private taken(): Uint8Array[] {
    const made = this.made
    this.made = []
    return made
  }
}

/** An archive of some files, in pieces as they are made. */
export function* zipped(files: Iterable<ArchiveFile>): Generator<Uint8Array> {
  const zip = new ZipWriter()
  for (const file of files) yield* zip.add(file)
  yield* zip.end()
}

/** An archive in one go. */
export function zipOf(files: Iterable<ArchiveFile>): Uint8Array {
  const pieces = [...zipped(files)]
  const whole = new Uint8Array(pieces.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of pieces) {
    whole.set(p, at)
    at += p.length
  }
  return whole
}

/** More than this many bytes for one that was packed is no drawing, picture or history, from this size on. */
const DENSEST = 300
const LIGHT = 4 * 1024 * 1024

const tooLarge = ({ bytes }: ArchiveLimits): BadArchive =>
  new BadArchive(
    `Unpacked, the archive is larger than ${Math.round(bytes / 1024 ** 2)} MB, which is more than can be taken. Bring it in in parts.`,
  )

/**
 * Paths of the files of an archive, nothing of it unpacked.
 *
 * @throws BadArchive as `unzipped`
 */
export function listedIn(bytes: Uint8Array, limits: ArchiveLimits): string[] {
  const seen = new Set<string>()
  let total = 0
  read(bytes, ({ name, size, originalSize }) => {
    if (name.endsWith('/')) return false
    if (!isPlainPath(name))
      throw new BadArchive(
        `The archive holds a file "${name.slice(0, 80)}" that leads out of it. It was not made by Bellatrait; do not trust it.`,
      )
    if (seen.has(name))
      throw new BadArchive(`The archive holds the file "${name.slice(0, 80)}" twice. Make the archive again.`)
    seen.add(name)
    total += originalSize
    if (seen.size > limits.files)
      throw new BadArchive(`The archive holds more than ${limits.files} files. Bring it in in parts.`)
    if (total > limits.bytes) throw tooLarge(limits)
    if (originalSize > LIGHT && originalSize > DENSEST * size)
      throw new BadArchive(
        `The archive holds a file "${name.slice(0, 80)}" that is packed more tightly than anything that is drawn. It was not made by Bellatrait; do not trust it.`,
      )
    return false
  })
  return [...seen]
}

/**
 * The files of an archive by their paths, or those that are `wanted`. What the archive says of its own sizes is looked at
 * before anything is unpacked, and no file becomes larger than was said of it.
 *
 * @throws BadArchive where it is none, is damaged, holds paths that lead elsewhere, or is larger than `limits`
 */
export function unzipped(
  bytes: Uint8Array,
  limits: ArchiveLimits,
  wanted: (path: string) => boolean = () => true,
): Map<string, Uint8Array> {
  const all = listedIn(bytes, { ...limits, bytes: Infinity })
  const files = new Set(all.filter(wanted))
  let total = 0
  const taken = read(bytes, ({ name, originalSize }) => {
    if (!files.has(name)) return false
    total += originalSize
    if (total > limits.bytes) throw tooLarge(limits)
    return true
  })
  return new Map(Object.entries(taken))
}

function read(bytes: Uint8Array, filter: (file: UnzipFileInfo) => boolean): Record<string, Uint8Array> {
  try {
    return unzipSync(bytes, { filter })
  } catch (e) {
    if (e instanceof BadArchive) throw e
    throw new BadArchive('This is no zip archive, or it is damaged. Download or copy it again.')
  }
}

/** Below the archive's own root, with nothing that a file system reads otherwise. */
function isPlainPath(path: string): boolean {
  if (path.length > 400 || /[\\:\u0000-\u001f]/.test(path)) return false
  return path.split('/').every((part) => part !== '' && part !== '.' && part !== '..')
}
