import { describe, expect, it } from 'vitest'
import { judgeOutlines } from './judge-outline'
import { inkyLine } from './random-lines'

const TOLERANCES = [0.5, 0.05, 0.005]
const BATCH = 50
/** Faults beyond the share that chance may bring together in a batch. */
const FEW = 2

/**
 * Tests that judge the outlines of the random lines `from` .. `to` at three tolerances. One line in a hundred may have a
 * fault at one of them: see the limits in docs/outline-engine.md.
 */
export function judgeMany(from: number, to: number): void {
  describe(`outlines of random lines ${from} to ${to} against the definition of ink`, () => {
    const faults: string[] = []
    const nodes = [0, 0, 0]
    for (let first = from; first <= to; first += BATCH) {
      it(`${first} to ${first + BATCH - 1}`, { timeout: 300_000 }, () => {
        for (let seed = first; seed < first + BATCH; seed++) {
          const judgement = judgeOutlines(inkyLine(seed), TOLERANCES)
          judgement.nodes.forEach((n, i) => (nodes[i]! += n))
          if (judgement.faults.length) faults.push(`line ${seed} ${judgement.faults.join('; ')}`)
        }
        // One bad batch is not the end: the share is judged over all.
        expect(faults.length, faults.join('\n')).toBeLessThanOrEqual(FEW + (first + BATCH - from) / 100)
      })
    }

    it('all in all no more than one line in a hundred', () => {
      expect(faults.length, faults.join('\n')).toBeLessThanOrEqual((to - from + 1) / 100)
    })

    it('no contour is turned over or crosses itself or another', () => {
      expect(faults.filter((f) => f.includes('turned') || f.includes('cross'))).toEqual([])
    })

    it('a tenth of the tolerance takes less than the sixth root of ten times the nodes', () => {
      expect(nodes[0]).toBeGreaterThan(10 * (to - from))
      expect(nodes[1]! / nodes[0]!).toBeLessThan(10 ** (1 / 6))
      expect(nodes[2]! / nodes[1]!).toBeLessThan(10 ** (1 / 6))
    })
  })
}
