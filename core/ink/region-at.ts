import type { Drawing } from '../model/model'
import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { InputError } from '../errors'
import { atOnce } from '../turns'
import { openInk } from './open-ink'
import { regionHitAt } from './session/region-hits'

/**
 * The boundary of the region of paper around a point, in true curves: its outer contour first, then the islands in it,
 * each the other way round. Null on ink, and on open ground.
 *
 * @param at px
 * @param options.gap gaps of up to so many px between an end and other ink are bridged
 * @throws InputError for a place or a gap that is not a number, or a negative gap
 */
export function regionAt(drawing: Drawing, at: Vec, { gap }: { gap: number }): Path[] | null {
  if (!Number.isFinite(at.x) || !Number.isFinite(at.y)) throw new InputError('at', 'The place must be two numbers.')
  if (!(gap >= 0) || !Number.isFinite(gap))
    throw new InputError('gap', `The gap must be a number of pixels, 0 or more, not ${gap}.`)
  const hit = atOnce(regionHitAt(openInk({ ...drawing, fills: [] }), at, gap))
  return hit?.where === 'region' ? hit.contours : null
}
