import { expect } from 'vitest'
import type { TaperEase, Line, WidthStop } from '#core/model/model'
import type { Path, PathNode } from '#core/geometry/path'
import { evenWeight, newLine, roundFinish } from '#core/model/create'
import { InputError } from '#core/errors'
import { seeded } from './random-lines'

/** Longest that one input may take, ms: a hang, not slowness, is looked for, on machines of any speed. */
export const LONGEST = 30_000

/** A number as bad luck would have it. */
function oddNumber(r: () => number): number {
  const kinds = [0, 0, 1, -1, 1e-12, 1e6, -1e6, 1e9, Number.NaN, Infinity, 0.1 + 0.2]
  return r() < 0.25 ? kinds[Math.floor(r() * kinds.length)]! : r() < 0.5 ? Math.round(r() * 20) * 5 : (r() - 0.2) * 160
}

/** A path as bad luck would have it. */
export function oddPath(r: () => number): Path {
  const tame = r() < 0.8
  const number = (): number => (tame ? (r() < 0.4 ? Math.round(r() * 8) * 10 : r() * 120) : oddNumber(r))
  const nodes: PathNode[] = []
  const count = Math.floor(r() ** 2 * 7)
  for (let i = 0; i < count; i++) {
    const before = nodes[nodes.length - 1]
    const at = before && r() < 0.15 ? before.at : { x: number(), y: number() }
    const handle = (): PathNode['in'] => (r() < 0.35 ? null : r() < 0.15 ? at : { x: number(), y: number() })
    nodes.push({ at, in: handle(), out: handle(), joint: 'corner' })
  }
  return { nodes, closed: r() < 0.3 }
}

/** A line as bad luck would have it: often legal, always odd. */
export function oddLine(seed: number): Line {
  const r = seeded(seed)
  for (let i = 0; i < 8; i++) r()
  const wild = r() < 0.1
  const width = (): number => (wild ? oddNumber(r) : r() < 0.2 ? 0 : r() < 0.2 ? 1 : r() * 3)
  const stops: WidthStop[] = Array.from({ length: Math.floor(r() * 5) + (r() < 0.02 ? 0 : 1) }, () => ({
    at: r() < 0.2 ? Math.round(r()) : r(),
    left: width(),
    right: width(),
    sharp: r() < 0.3,
  }))
  const taper = () =>
    r() < 0.3
      ? {
          length: r() < 0.3 ? 1e5 : r() * 100,
          unit: r() < 0.5 ? ('px' as const) : ('%' as const),
          tip: r() < 0.5 ? 0 : r(),
          ease: (['straight', 'round', 'needle'] as TaperEase[])[Math.floor(r() * 3)]!,
        }
      : null
  const pick = <T>(...of: T[]): T => of[Math.floor(r() * of.length)]!
  return newLine(oddPath(r), {
    weight: {
      ...evenWeight(wild ? oddNumber(r) : r() * 30),
      stops,
      start: taper(),
      end: taper(),
      nib: r() < 0.12 ? { width: r() * 2, height: r() < 0.3 ? 0 : r(), angle: r() * 360 } : null,
    },
    finish: {
      ...roundFinish(),
      startCap: pick('butt', 'round', 'square'),
      endCap: pick('butt', 'round', 'square'),
      join: pick('miter', 'round', 'bevel'),
      miterLimit: r() * 12,
      align: pick('centre', 'left', 'right'),
      dash: r() < 0.1 ? [r() * 9, r() * 9, r() * 3] : [],
    },
  })
}

/** The result, or null for a typed error that names a field; anything else fails. */
export function resultOf<T>(work: () => T): T | null {
  try {
    return work()
  } catch (e) {
    expect(e).toBeInstanceOf(InputError)
    expect((e as InputError).field).not.toBe('')
    return null
  }
}
