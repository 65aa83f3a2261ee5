import { describe, expect, it } from 'vitest'
import { atOnce, inTurns } from '#core/turns'

function* work(steps: number): Generator<number, string> {
  for (let i = 1; i <= steps; i++) yield i / steps
  return 'done'
}

describe('long work in turns', () => {
  it('ends with its result, resting after every turn', async () => {
    let rests = 0
    const heard: number[] = []
    const result = await inTurns(work(5), {
      turn: 0,
      rest: () => Promise.resolve(rests++),
      go: (p) => heard.push(p) > 0,
    })
    expect([result, rests, heard]).toEqual(['done', 5, [0.2, 0.4, 0.6, 0.8, 1]])
  })

  it('does not rest within a turn', async () => {
    let rests = 0
    expect(await inTurns(work(50), { turn: 60_000, rest: () => Promise.resolve(rests++) })).toBe('done')
    expect(rests).toBe(0)
  })

  it('stops when it is told to', async () => {
    const steps = work(5)
    expect(await inTurns(steps, { turn: 0, rest: () => Promise.resolve(), go: (p) => p < 0.5 })).toBeNull()
    expect(steps.next().value).toBe(0.8)
  })

  it('in one go gives the same', () => {
    expect(atOnce(work(3))).toBe('done')
  })
})
