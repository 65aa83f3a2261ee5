import { InputError } from '../errors'
import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import type { Drawing, Line } from '../model/model'
import { boxOfPath } from '../geometry/known'
import { grown } from '../geometry/bounds'
import type { Bend } from './bent-path'
import { bentPath } from './bent-path'
import type { PushOptions } from './push-field'
import { PushField } from './push-field'
import { repath } from './repath'

/** How near bent segments lie to what they stand for, px, at a radius in px. */
export const tolerableBend = (radius: number): number => radius / 200

/** What is scraped off a line lies this near to its path, in sizes. */
const BESIDE = 4

/**
 * Lines as a soft round push bends them, several alike: most at its middle, nothing beyond its radius. Nodes stay what they are, and as
 * many, but where no single curve comes near to what a segment became; widths, snips and scrapings go along. The same object for a line
 * that it does not reach.
 *
 * @param way where the hand was, px, and by how much it moved from there, one after the other
 * @param options radius, px, above 0; strength, 0..1: the share of the way that the middle goes along
 */
export function pushed(
  lines: readonly Line[],
  way: readonly { at: Vec; by: Vec }[],
  { radius, strength }: PushOptions,
): Line[] {
  if (!(radius > 0)) throw new InputError('radius', `The radius must be above 0 px, not ${radius}.`)
  if (!(strength >= 0 && strength <= 1))
    throw new InputError('strength', `The strength must be 0 to 1, not ${strength}.`)
  const field = new PushField(way, { radius, strength })
  return lines.map((line) => bentLine(line, field, tolerableBend(radius)))
}

/** A line as a map bends it; the same object where the map does not reach it. */
function bentLine(line: Line, bend: Bend, tolerance: number): Line {
  const bent =
    bend.reaches(grown(boxOfPath(line.path), BESIDE * line.weight.size)) && bentPath(line.path, bend, tolerance)
  if (!bent) return line
  const next: Line = { ...line, weight: { ...line.weight } }
  takeBent(next, bent, bend, tolerance, null)
  return next
}

/** Gives a line of a draft a bent path; what hangs on it in the drawing goes along. */
export function takeBent(
  line: Line,
  { from, to }: { from: Path; to: Path },
  bend: Bend,
  tolerance: number,
  within: Pick<Drawing, 'amendments'> | null,
): void {
  // Nodes more on the same way change no place along it.
  line.path = from
  repath(line, to, within)
  if (line.scrapes) line.scrapes = line.scrapes.map((c) => bentPath(c, bend, tolerance)?.to ?? c)
}
