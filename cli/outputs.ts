import { mkdirSync, realpathSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, resolve } from 'node:path'

/** Where a path leads, through links and whatever its spelling, also where nothing is there yet. */
function placeOf(path: string): string {
  const whole = resolve(path)
  try {
    return realpathSync.native(whole)
  } catch {
    const folder = dirname(whole)
    return folder === whole ? whole : join(placeOf(folder), basename(whole))
  }
}

/** What tells a file from all others: where it leads and, where it is there already, the file itself, which may have other names. */
function marksOf(path: string): string[] {
  try {
    const at = statSync(path)
    return [placeOf(path), ...(at.isFile() ? [`${at.dev}:${at.ino}`] : [])]
  } catch {
    // Nothing is there, or nothing that could be looked at.
    return [placeOf(path)]
  }
}

/** Files that must not be written over, by what was said of them first. */
export class Taken {
  private readonly by = new Map<string, string>()

  /** @param inputs files that are read */
  constructor(inputs: readonly string[]) {
    for (const path of inputs) for (const mark of marksOf(path)) this.by.set(mark, `the input ${path}`)
  }

  /** What would be lost by writing to a path; null where nothing would. */
  rivalOf(path: string): string | null {
    return (
      marksOf(path)
        .map((mark) => this.by.get(mark))
        .find((rival) => rival !== undefined) ?? null
    )
  }

  /** A path is written to; `what` says what it becomes. */
  add(path: string, what: string): void {
    this.by.set(placeOf(path), what)
  }
}

const TROUBLES: Record<string, string> = {
  EACCES: 'it may not be written to',
  EPERM: 'it may not be written to',
  EROFS: 'the disk is read-only',
  ENOSPC: 'the disk is full',
  EISDIR: 'there is a folder of that name',
  ENOTDIR: 'a file stands where a folder should be',
  EEXIST: 'a file stands where a folder should be',
  ENAMETOOLONG: 'the name is too long',
}

/**
 * Writes a file, and the folders that it lies in.
 *
 * @throws Error with a sentence that says why it cannot be written
 */
export function written(path: string, content: string | Uint8Array): void {
  try {
    mkdirSync(dirname(path), { recursive: true })
    writeFileSync(path, content)
  } catch (e) {
    const code = (e as NodeJS.ErrnoException).code ?? ''
    throw new Error(`it could not be written: ${TROUBLES[code] ?? (e as Error).message}.`)
  }
}
