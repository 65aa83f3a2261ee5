import { mapPath } from '../geometry/path'
import { mapped } from '../geometry/matrix'
import type { Finish, Line, Nib } from '../model/model'
import { flipSides } from '../weight/shelf'
import type { Image } from './images'
import { idIn } from '../model/image-ids'

const SIDES = { left: 'right', right: 'left', centre: 'centre' } as const

const known = new WeakMap<Line, Map<string, { image: Image; line: Line }>>()

/** A line as it stands in an image; the same object for as long as the line and the image are the same. */
export function imageOf(line: Line, image: Image): Line {
  let of = known.get(line)
  if (!of) known.set(line, (of = new Map()))
  const was = of.get(image.tag)
  if (was && was.image.by.every((v, i) => v === image.by[i])) return was.line
  const made = mappedLine(line, image)
  of.set(image.tag, { image, line: made })
  return made
}

function mappedLine(line: Line, image: Image): Line {
  const { tag, by, isMirrored } = image
  const map = (p: Parameters<typeof mapped>[1]) => mapped(by, p)
  const weight = isMirrored ? flipSides(line.weight) : line.weight
  return {
    ...line,
    id: idIn(line.id, tag),
    path: mapPath(line.path, map),
    weight: line.weight.nib ? { ...weight, nib: turnedNib(line.weight.nib, image) } : weight,
    finish: isMirrored ? flippedFinish(line.finish) : line.finish,
    trace: null,
    ...(line.scrapes && { scrapes: line.scrapes.map((c) => mapPath(c, map)) }),
    ...(line.outside && isMirrored && { outside: SIDES[line.outside] }),
    ...(line.apart && { apart: idIn(line.apart, tag) }),
    ...(line.over && { over: { first: both(line.over.first, tag), last: both(line.over.last, tag) } }),
  }
}

/** Lines over which an end lies, wherever they stand. */
const both = (ids: readonly string[] | undefined, tag: string): string[] =>
  (ids ?? []).flatMap((id) => [id, idIn(id, tag)])

const flippedFinish = (finish: Finish): Finish =>
  finish.align === 'centre' ? finish : { ...finish, align: SIDES[finish.align] }

const turnedNib = (nib: Nib, { turned }: Image): Nib => ({
  ...nib,
  angle: (turned((nib.angle * Math.PI) / 180) * 180) / Math.PI,
})
