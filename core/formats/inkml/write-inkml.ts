import type { PenTrace, TraceSample } from '../../model/model'

/** Pen traces as InkML (W3C, Ink Markup Language, 2011): x and y in px, time in ms, pressure 0..1, tilt in degrees. */
export function writeInkml(traces: readonly PenTrace[]): string {
  const tilts = traces.some((t) => t.samples.some((s) => s.tiltX !== undefined))
  const channels = ['X', 'Y', 'T', 'F', ...(tilts ? ['OTx', 'OTy'] : [])]
  const format = channels
    .map((name) => `      <channel name="${name}" type="decimal"${LIMITS[name] ?? ''}/>`)
    .join('\n')
  const body = traces
    .map((t) => `  <trace>${t.samples.map((s) => numbersOf(s, tilts).join(' ')).join(', ')}</trace>`)
    .join('\n')
  return `<?xml version="1.0" encoding="UTF-8"?>
<ink xmlns="http://www.w3.org/2003/InkML">
  <definitions>
    <traceFormat>
${format}
    </traceFormat>
  </definitions>
${body}
</ink>
`
}

const LIMITS: Record<string, string> = {
  T: ' units="ms"',
  F: ' min="0" max="1"',
  OTx: ' units="deg"',
  OTy: ' units="deg"',
}

const numbersOf = (s: TraceSample, tilts: boolean): number[] => [
  s.x,
  s.y,
  s.t,
  s.pressure,
  ...(tilts ? [s.tiltX ?? 0, s.tiltY ?? 0] : []),
]
