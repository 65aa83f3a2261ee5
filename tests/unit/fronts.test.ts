import { describe, expect, it } from 'vitest'
import { randomThings, sceneOf, unlikePainted } from './support/scenes'

describe('what lies in front', () => {
  it('hides what a painter would paint over, by the order of layers', () => {
    const wrong: string[] = []
    for (let seed = 1; seed <= 100; seed++) {
      const things = randomThings(seed)
      const scene = sceneOf(things)
      const n = unlikePainted({ ...scene, settings: { ...scene.settings, frontsByOrder: true } }, things)
      if (n) wrong.push(`${seed}: ${n} (${things.map((t) => t.length).join(' ')})`)
    }
    expect(wrong).toEqual([])
  })
})
