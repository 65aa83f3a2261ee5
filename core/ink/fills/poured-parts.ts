import type { Drawing } from '../../model/model'
import { linesOf } from '../../model/queries'
import { toPaths } from '../../arrangement/contours'
import type { Cubic } from '../../geometry/cubic'
import type { Poured } from './fill-stage'
import { regionOf } from '../outlines/outlines'
import { shadesOf } from './shades'
import type { Part } from '../stack/stack'
import { rememberedBy } from '../../remembered'

/** What was poured, and its shapes: what lies beneath the ink, bottom to top. */
export interface PouredParts {
  poured: readonly Poured[]
  parts: readonly Part[]
  /** By id of tinted lines, their inks. */
  tints: ReadonlyMap<string, string>
}

export const NOTHING_POURED: PouredParts = { poured: [], parts: [], tints: new Map() }

/**
 * The shapes of fills: the grounds, the fills of regions, and the shades on them. Fills in an ink of lines come last: with
 * nothing of another ink between, they become one with the lines.
 */
export function partsOfFills(poured: readonly Poured[], drawing: Drawing): Part[] {
  const isGround = ({ fill }: Poured): boolean => fill.where !== 'region'
  const ofLines = new Set(linesOf(drawing).map((l) => l.ink))
  const rank = (p: Poured): number =>
    p.fill.where === 'page' ? 0 : p.fill.where === 'open' ? 1 : ofLines.has(p.fill.ink) ? 3 : 2
  const ordered = [...poured].sort((a, b) => rank(a) - rank(b))
  const fillsOf = (all: readonly Poured[]): Part[] =>
    all.map(({ fill, contours }) => partOf(contours, `fill:${fill.id}`, fill.ink))
  const shadesOfAll = (all: readonly Poured[]): Part[] =>
    all.filter((p) => !isGround(p)).flatMap((p) => shadesOf(p, drawing).map((s) => partOf(s.contours, s.id, s.ink)))
  const [below, last] = [ordered.filter((p) => rank(p) < 3), ordered.filter((p) => rank(p) === 3)]
  return [below, last].flatMap((all) => [...fillsOf(all), ...shadesOfAll(all)]).filter((p) => p.region.contours.length)
}

const partOf = rememberedBy((contours: Cubic[][], id: string, ink: string): Part => ({
  item: { id, contours: toPaths(contours), ink, from: [] },
  region: regionOf(contours),
}))
