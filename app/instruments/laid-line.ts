import { repath } from '#core/editing/repath'
import type { Path } from '#core/geometry/path'
import { newLine } from '#core/model/create'
import { layLines } from '#core/editing/lay'
import { findLine } from '#core/model/find'
import type { GoingOn } from './going-on'
import type { UnderWay } from './instrument'
import type { Edits, NextLine, Selection } from './worktop'

/** The line that a path makes: a fresh one, or the one that is gone on with, whose widths stay where they are. */
export function lineOfPath(worktop: NextLine, path: Path, goingOn: GoingOn | null, label: string): UnderWay {
  if (!goingOn)
    return {
      label,
      line: newLine(path, { weight: worktop.nextWeight(), ink: worktop.nextInk() }),
      replaces: false,
    }
  const line = { ...goingOn.line, weight: { ...goingOn.line.weight } }
  repath(line, path, null)
  return { label: path.closed ? 'Close a line' : 'Go on with a line', line, replaces: true }
}

/** Makes a line that was laid a step: on the layer for ink, or in place of the one that was gone on with. */
export function keepLine(worktop: Edits & Selection, { line, label, replaces }: UnderWay): void {
  const layer = replaces ? null : worktop.layerForInk()
  if (!replaces && !layer) return
  worktop.edit(label, (draft) => {
    const found = replaces ? findLine(draft, line.id) : null
    if (found) repath(found.line, line.path, draft)
    else if (layer) layLines(draft, layer, [line])
  })
  worktop.select([line.id])
}
