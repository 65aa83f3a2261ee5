import { expect, it } from 'vitest'
import { shapesOf } from '#core/ink/shapes-of'
import { findingsOf } from '#core/proof/findings-of'
import { aimedDrawing } from './aimed-drawings'
import { wrongPixels } from './wrong-pixels'

const BATCH = 20
/** Where a line ends in a stretch shorter than its width, others may turn its cap another way. */
const FEW = 30
/** So many drawings share one that Proof looks at, with its regions and all that leads there. */
const PROOFED = 5

/** Tests that drawings aimed at what is hard to unite are neither refused nor wrong. */
export function judgeAimed(from: number, to: number): void {
  for (let first = from; first <= to; first += BATCH)
    it(
      `figures as fill and stroke, nearly on each other, ${first} to ${first + BATCH - 1}`,
      { timeout: 600_000 },
      async () => {
        for (let seed = first; seed < first + BATCH && seed <= to; seed++) {
          const drawing = aimedDrawing(seed)
          expect(shapesOf(drawing).failed, `drawing ${seed}`).toEqual([])
          expect(wrongPixels(drawing), `drawing ${seed}`).toBeLessThan(FEW)
          if (seed % PROOFED === 0)
            expect(
              findingsOf(drawing).filter((f) => f.kind === 'failed'),
              `drawing ${seed}`,
            ).toEqual([])
          // The renderer gives its pictures back between two turns only: thousands of them would fill the machine.
          await new Promise((resolve) => setImmediate(resolve))
        }
      },
    )
}
