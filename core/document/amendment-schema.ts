import * as yup from 'yup'
import { id, nodeProblem, nodes, number, place, text } from './schema-parts'

const hanging = yup
  .object({
    line: text(80).min(1),
    at: yup.number().strict().required().min(0).max(1),
    ahead: yup.number().strict().required().min(-1e5).max(1e5),
    left: yup.number().strict().required().min(-1e5).max(1e5),
    turn: yup.number().strict().required().min(-10).max(10),
    half: yup.number().strict().required().moreThan(0).max(1e6),
    was: nodes.length(3).notRequired().default(undefined),
  })
  .noUnknown()
  .strict()

const retouch = yup
  .object({
    id: id(),
    kind: yup.string().strict().oneOf(['retouch']).required(),
    at: place,
    to: yup
      .mixed()
      .nullable()
      .test(
        (v, context) =>
          v === null ||
          v === 'add' ||
          v === 'cut' ||
          (typeof v === 'object' && !nodeProblem(v)) ||
          context.createError({ message: `${context.path} cannot be used` }),
      ),
    by: hanging.default(undefined),
  })
  .noUnknown()
  .strict()

const placeByLine = yup
  .object({
    at: yup.number().strict().required().min(0).max(1),
    ahead: yup.number().strict().required().min(-1e5).max(1e5),
    left: yup.number().strict().required().min(-1e5).max(1e5),
  })
  .noUnknown()
  .strict()
  .required()

const trim = yup
  .object({
    id: text(80).min(1),
    kind: yup.string().strict().oneOf(['trim']).required(),
    line: text(80).min(1),
    place: placeByLine,
    over: yup.array(text(80).min(1).required()).required().max(1000),
    bounds: yup
      .array(
        yup
          .object({ by: text(80).min(1), side: yup.number().strict().oneOf([-1, 0, 1]).required() })
          .noUnknown()
          .strict()
          .required(),
      )
      .required()
      .max(1000),
  })
  .noUnknown()
  .strict()

const endOfLine = yup
  .object({ line: text(80).min(1), end: yup.string().strict().oneOf(['first', 'last']).required() })
  .noUnknown()
  .strict()

const corner = yup
  .object({
    id: text(80).min(1),
    kind: yup.string().strict().oneOf(['corner']).required(),
    ends: yup.array(endOfLine.required()).required().length(2),
    style: yup.string().strict().oneOf(['caps', 'tucked', 'pointed', 'rounded', 'crossing']).required(),
    behind: yup.number().strict().oneOf([0, 1]),
    limit: yup.number().strict().min(1).max(100),
    length: yup.number().strict().min(0).max(100),
  })
  .noUnknown()
  .strict()

const fineness = yup
  .object({
    id: text(80).min(1),
    kind: yup.string().strict().oneOf(['fineness']).required(),
    line: text(80).min(1),
    place: placeByLine,
    simplify: number().min(0).max(1e5),
  })
  .noUnknown()
  .strict()

const boundBy = yup.array(text(80).min(1).required()).required().min(1).max(1000)

const front = yup
  .object({
    id: text(80).min(1),
    kind: yup.string().strict().oneOf(['front']).required(),
    front: boundBy,
    back: boundBy,
    both: yup.boolean().strict().oneOf([true]),
  })
  .noUnknown()
  .strict()

const bridge = yup
  .object({
    id: text(80).min(1),
    kind: yup.string().strict().oneOf(['bridge']).required(),
    lines: boundBy,
    along: number().min(-1e3).max(1e3),
    across: number().min(-1e3).max(1e3),
  })
  .noUnknown()
  .strict()

const cast = yup
  .object({
    id: text(80).min(1),
    kind: yup.string().strict().oneOf(['cast']).required(),
    front: boundBy,
    gap: number().min(0).max(1e3),
    width: number().min(0).max(1e3),
    taper: number().min(0).max(1),
    ink: yup.string().strict().min(1).max(80),
  })
  .noUnknown()
  .strict()

const lines = yup.array(text(80).min(1).required()).required().max(10_000)
const fresh = yup.boolean().strict().oneOf([true])

const mirror = yup
  .object({
    id: text(80).min(1),
    kind: yup.string().strict().oneOf(['mirror']).required(),
    lines,
    from: place.required(),
    to: place.required(),
    otherwise: yup.array(text(80).min(1).required()).max(10_000),
    fresh,
  })
  .noUnknown()
  .strict()

const repeat = yup
  .object({
    id: text(80).min(1),
    kind: yup.string().strict().oneOf(['repeat']).required(),
    lines,
    about: place.required(),
    times: yup.number().strict().integer().min(2).max(24).required(),
    left: yup.array(yup.number().strict().integer().min(1).max(23).required()).max(23),
    fresh,
  })
  .noUnknown()
  .strict()

const leave = yup
  .object({ id: text(80).min(1), kind: yup.string().strict().oneOf(['leave']).required(), key: text(300).min(1) })
  .noUnknown()
  .strict()

const AMENDMENTS = { retouch, trim, corner, fineness, front, bridge, cast, mirror, repeat, leave }

/** Schema of an amendment. */
export const amendmentSchema = yup.lazy((v: unknown) => {
  const kind = typeof v === 'object' && v !== null && 'kind' in v ? v.kind : null
  return typeof kind === 'string' && Object.hasOwn(AMENDMENTS, kind)
    ? AMENDMENTS[kind as keyof typeof AMENDMENTS]
    : retouch
})
