import type { Finding, Proofed } from './finding'

/** Ends that go past a line, unless it was decided what they do. */
export const pastLines = ({ lines, ends }: Proofed): Finding[] =>
  lines.flatMap((line) =>
    ends.of(line.id).flatMap((c): Finding[] =>
      c.kind === 'crossing' && !line.tuck?.[c.end]
        ? [
            {
              key: `past ${line.id} ${c.end}`,
              kind: 'past',
              at: c.at,
              items: [line.id, c.under!.line],
              mend: { do: 'tuck', line: line.id, end: c.end },
            },
          ]
        : [],
    ),
  )

/** Ends that meet a line and are let out: what pokes out there. */
export const pokes = ({ lines, ends, drawing }: Proofed): Finding[] =>
  lines.flatMap((line) =>
    ends.of(line.id).flatMap((c): Finding[] =>
      c.kind === 'meeting' &&
      (line.tuck?.[c.end] === 'out' || drawing.settings.tuck === false) &&
      c.touched.some((t) => !t.ends)
        ? [
            {
              key: `poke ${line.id} ${c.end}`,
              kind: 'poke',
              at: c.at,
              items: [line.id, c.touched[0]!.line],
              mend: { do: 'tuck', line: line.id, end: c.end },
            },
          ]
        : [],
    ),
  )
