import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { shapesOf } from '#core/ink/shapes-of'
import { inSession } from '../../server/workers/in-session'
import { strokes } from '../../bench/strokes'

const drawing = newDrawing('Strokes', { layers: [newLinesLayer('Ink', strokes(20))] })
const fileIn = (): string => join(mkdtempSync(join(tmpdir(), 'bellatrait-recalled-')), 'beside', 'strokes.shapes')

describe('what the server worked out of a drawing', () => {
  it('is found in its file by the next worker, which works nothing out', () => {
    const file = fileIn()
    const made = inSession(drawing, file, (session) => session.shapes())
    expect(made).toEqual(shapesOf(drawing))
    const page = readFileSync(file)
    let steps = 0
    const again = inSession(structuredClone(drawing), file, function* (session) {
      for (const work = session.shapes(); ; steps++) {
        const step = work.next()
        if (step.done) return step.value
        yield step.value
      }
    })
    expect(again).toEqual(made)
    expect(steps).toBe(0)
    // Nothing was new, so nothing was written.
    expect(readFileSync(file).equals(page)).toBe(true)
  })

  it('is worked out again where its file is damaged, cut off, or cannot be written', () => {
    const file = fileIn()
    const made = inSession(drawing, file, (session) => session.shapes())
    const page = readFileSync(file)
    for (let i = 0; i < 12; i++) {
      const damaged = Buffer.from(page)
      damaged[(i * 104_729) % (i % 2 ? page.length : 4000)]! ^= 1 << (i % 8)
      writeFileSync(file, i % 5 ? damaged : damaged.subarray(0, (page.length * i) / 12))
      expect(inSession(drawing, file, (session) => session.shapes())).toEqual(made)
    }
    const blocked = join(file, 'no folder')
    expect(inSession(drawing, blocked, (session) => session.shapes())).toEqual(made)
    expect(existsSync(blocked)).toBe(false)
  })
})
