import { describe, expect, it } from 'vitest'
import { outlineOf } from '#core/outline/expand'
import { areaOfCubics } from '#core/geometry/area'
import { FlatRegion, inInk, sampleLine } from './support/definition'
import { randomLine } from './support/random-lines'

const STEP = 1.4
const SIZE = 220

/** Area (px squared) on which the outline and the definition disagree, and the area that the definition covers. */
function disagreement(seed: number): { wrong: number; ink: number } {
  const line = randomLine(seed)
  const region = new FlatRegion(outlineOf(line, 0.05))
  const truth = sampleLine(line, 400)
  let wrong = 0
  let ink = 0
  for (let y = -30.37; y < SIZE; y += STEP) {
    for (let x = -30.61; x < SIZE; x += STEP) {
      const covered = inInk(truth, { x, y })
      if (covered) ink++
      if (covered !== (region.winding({ x, y }) !== 0)) wrong++
    }
  }
  return { wrong: wrong * STEP * STEP, ink: ink * STEP * STEP }
}

describe('expandLine against the definition of ink, point by point', () => {
  it.each(Array.from({ length: 30 }, (_, i) => i + 1))('random line %i', (seed) => {
    const { wrong, ink } = disagreement(seed)
    expect(ink).toBeGreaterThan(0)
    // Points within the tolerance of the boundary may fall either way: a few in a thousand.
    expect(wrong).toBeLessThanOrEqual(Math.max(4, ink * 0.004))
  })

  it.each(Array.from({ length: 30 }, (_, i) => i + 1))('random line %i does not cross itself', (seed) => {
    const contours = outlineOf(randomLine(seed), 0.05)
    expect(new FlatRegion(contours, 0.001).crossings()).toBe(0)
    expect(contours.reduce((sum, c) => sum + areaOfCubics(c), 0)).toBeGreaterThan(0)
  })
})
