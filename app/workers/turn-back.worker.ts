import { expose } from 'comlink'
import type { Shape } from '#core/model/model'
import { cubicsOfPath } from '#core/geometry/path'
import type { TurnedBack } from '#core/from-outlines/line-from-outline'
import { lineFromOutline } from '#core/from-outlines/line-from-outline'
import { islandsOf } from '#core/shapes/islands'

/** What became of a solid: its lines, and how far their ink lies from its outline at most, px; null where it stays as it is. */
export interface Turned {
  id: string
  lines: TurnedBack['line'][] | null
  deviation: number
}

const turner = {
  /** Lines of which solids were made, each island of a solid one line. */
  async turn(solids: readonly Shape[], tolerance: number, progress: (share: number) => void): Promise<Turned[]> {
    const out: Turned[] = []
    for (const { id, contours } of solids) {
      const islands = islandsOf(contours.map((c) => cubicsOfPath({ ...c, closed: true })))
      const found = islands.map((island) =>
        lineFromOutline(
          island.map((i) => contours[i]!),
          { tolerance },
        ),
      )
      const whole = found.length > 0 && found.every((f) => f !== null)
      out.push({
        id,
        lines: whole ? found.map((f) => f.line) : null,
        deviation: whole ? Math.max(...found.map((f) => f.deviation)) : 0,
      })
      progress(out.length / solids.length)
      await new Promise((next) => setTimeout(next))
    }
    return out
  },
}

export type TurnBackWorker = typeof turner

expose(turner)
