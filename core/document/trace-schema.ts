import * as yup from 'yup'
import type { TraceSample } from '../model/model'
import { coordinate, isCoordinate, number, records, share, text, unknownField } from './schema-parts'

const isNumber = (v: unknown): boolean => typeof v === 'number' && Number.isFinite(v)

/** Most samples of a trace. */
const MOST_SAMPLES = 50_000

const SAMPLE: ReadonlySet<string> = new Set(['x', 'y', 't', 'pressure', 'tiltX', 'tiltY'])

/** Schema of the samples of a trace. */
export const samplesSchema = records<TraceSample>(MOST_SAMPLES, (s) => {
  if (!isCoordinate(s.x)) return 'x'
  if (!isCoordinate(s.y)) return 'y'
  if (!isNumber(s.t)) return 't'
  if (!isNumber(s.pressure) || s.pressure! < 0 || s.pressure! > 1) return 'pressure'
  if (s.tiltX !== undefined && !isNumber(s.tiltX)) return 'tiltX'
  return s.tiltY !== undefined && !isNumber(s.tiltY) ? 'tiltY' : unknownField(s, SAMPLE)
})

const traceSettings = yup
  .object({
    device: yup.string().oneOf(['pen', 'mouse', 'touch', 'practice']).required(),
    steadiness: number().min(0).max(1),
    response: number().min(0.05).max(20),
    least: share(),
    most: share(),
    variation: share(),
    fromSpeed: yup.boolean().strict(),
    unevenness: share(),
    widthTolerance: share().min(0.005),
    squared: yup.boolean().strict(),
    loop: yup.boolean().strict(),
    zoom: yup.number().strict().min(1e-4).max(1e4),
  })
  .noUnknown()
  .strict()

const drawnTrace = traceSettings.shape({ samples: samplesSchema })

const keptTrace = traceSettings.shape({
  of: text(64).matches(/^[0-9a-f]{64}$/),
  count: number().integer().min(0).max(MOST_SAMPLES),
  at: yup.array(coordinate()).required().length(6),
  part: yup.array(share().required()).length(2).default(undefined),
  reversed: yup.boolean().strict().oneOf([true]),
})

/** Schema of what a hand drew of a line: with its samples, or with the hash under which these are kept. */
export const traceSchema = yup.lazy((v: unknown) =>
  typeof v === 'object' && v !== null
    ? 'of' in v
      ? keptTrace
      : drawnTrace
    : yup.mixed().nullable().oneOf([null]).default(null),
)
