import { readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

/** Files as they are named, and the SVG files of folders by name. */
export function filesOf(inputs: readonly string[]): string[] {
  return inputs.flatMap((path) => {
    if (!statSync(path, { throwIfNoEntry: false })?.isDirectory()) return [path]
    return readdirSync(path)
      .filter((f) => f.endsWith('.svg'))
      .sort()
      .map((f) => join(path, f))
  })
}
