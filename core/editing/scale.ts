import { mapPath } from '../geometry/path'
import { mappedTrace } from '../model/line-trace'
import type { Line, Taper } from '../model/model'
import type { Vec } from '../geometry/point'

/**
 * The line with its points put through `map`, which scales by `k` on the whole. With `weights` what is measured in px
 * across and along the line (size, tapers, dashes, roughness) grows with it, else it stays as it is.
 */
export function scaledLine(line: Line, map: (p: Vec) => Vec, k: number, weights: boolean): Line {
  const scaled: Line = {
    ...line,
    path: mapPath(line.path, map),
    ...(line.scrapes && { scrapes: line.scrapes.map((c) => mapPath(c, map)) }),
    trace: mappedTrace(line.trace, map),
  }
  return weights ? { ...scaled, ...scaledMeasures(line, k) } : scaled
}

function scaledMeasures({ weight, finish }: Line, k: number): Pick<Line, 'weight' | 'finish'> {
  const taper = (t: Taper | null): Taper | null => (t && t.unit === 'px' ? { ...t, length: t.length * k } : t)
  return {
    weight: { ...weight, size: weight.size * k, start: taper(weight.start), end: taper(weight.end) },
    finish: {
      ...finish,
      dash: finish.dash.map((d) => d * k),
      ...(finish.rough && {
        rough: { ...finish.rough, amount: finish.rough.amount * k, grain: finish.rough.grain * k },
      }),
    },
  }
}
