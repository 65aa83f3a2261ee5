import type { Line } from '../model/model'
import { arcOfPath } from '../geometry/known'
import { bodyWidth } from '../relations/body'
import type { EndContact } from '../relations/end-contacts'
import { LineWidth } from '../weight/half-widths'
import type { Finding, Proofed } from './finding'
import { rememberedBy } from '../remembered'

/** An end is blunt when it is wider than this share of its line's body there. */
const BLUNT = 0.5

/** Free ends that do not taper: the craft has an end in the open run out thin. */
export const bluntEnds = ({ lines, ends }: Proofed): Finding[] =>
  lines.flatMap((line) =>
    bluntAmong(line, ends.of(line.id)).map((c): Finding => ({
      key: `blunt ${line.id} ${c.end}`,
      kind: 'blunt',
      at: c.at,
      items: [line.id],
      mend: { do: 'taper', line: line.id, end: c.end },
    })),
  )

/** The free ends of a line that are blunt. */
export const bluntAmong = rememberedBy((line: Line, contacts: readonly EndContact[]): EndContact[] =>
  contacts.filter((c) => c.kind === 'free' && isBlunt(line, c)),
)

/** Whether an end is full, or nearly so. */
function isBlunt(line: Line, { place, end }: EndContact): boolean {
  const { total } = arcOfPath(line.path)
  const { left, right } = new LineWidth(line.weight, line.finish.align, total, false).at(place * total, end === 'last')
  return left + right > BLUNT * bodyWidth(line, place)
}
