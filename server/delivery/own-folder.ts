import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const NAME = 'bellatrait-delivery-'

/** A folder for what one delivery makes; it tells which process it belongs to. */
export const ownFolder = (): string => mkdtempSync(join(tmpdir(), `${NAME}${process.pid}-`))

function isAlive(process_: number): boolean {
  try {
    process.kill(process_, 0)
    return true
  } catch (e) {
    return (e as NodeJS.ErrnoException).code === 'EPERM'
  }
}

/** Takes the folders away that processes left behind which are no more. */
export function sweepFolders(): void {
  for (const name of readdirSync(tmpdir())) {
    const of = new RegExp(`^${NAME}(\\d+)-`).exec(name)?.[1]
    if (of !== undefined && !isAlive(Number(of))) rmSync(join(tmpdir(), name), { recursive: true, force: true })
  }
}
