import { readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

/** The inputs of a command: files, and what cannot be one of them, each with a sentence that says why. */
export interface Inputs {
  files: string[]
  missing: { name: string; why: string }[]
}

const WHY: Record<string, string> = { EACCES: 'it may not be read', EPERM: 'it may not be read' }

/** Files as they are named, and the SVG files of folders by name. */
export function inputsOf(paths: readonly string[]): Inputs {
  const found: Inputs = { files: [], missing: [] }
  for (const path of paths) {
    const files = filesAt(path)
    if (typeof files === 'string') found.missing.push({ name: path, why: files })
    else found.files.push(...files)
  }
  return found
}

/** The files at a path, or why there are none. */
function filesAt(path: string): string[] | string {
  try {
    const at = statSync(path, { throwIfNoEntry: false })
    if (!at) return 'there is no such file or folder'
    if (!at.isDirectory()) return [path]
    const files = readdirSync(path)
      .filter((f) => /\.svg$/i.test(f))
      .sort()
    return files.length ? files.map((f) => join(path, f)) : 'the folder holds no SVG files'
  } catch (e) {
    return WHY[(e as NodeJS.ErrnoException).code ?? ''] ?? (e as Error).message
  }
}
