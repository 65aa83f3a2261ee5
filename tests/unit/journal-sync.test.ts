import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Edit } from '#core/document/edits'
import type { Conflict } from '#shared/edits'

const kept: Edit[] = []
const appendEdits = vi.fn()

vi.mock('~/network/outbox', () => ({
  keepEdits: (_drawing: string, edits: Edit[], gone: string[] = []) => {
    const ids = new Set([...gone, ...edits.map((e) => e.id)])
    kept.splice(0, kept.length, ...kept.filter((e) => !ids.has(e.id)), ...edits)
    return Promise.resolve()
  },
  forgetEdits: (_drawing: string, ids: string[]) => {
    for (let i = kept.length - 1; i >= 0; i--) if (ids.includes(kept[i]!.id)) kept.splice(i, 1)
    return Promise.resolve()
  },
}))
vi.mock('~/network/kept-drawings', () => ({ keepAcknowledged: () => Promise.resolve() }))
vi.mock('~/network/api', async (original) => ({
  ...(await original<object>()),
  appendEdits: (...args: unknown[]) => appendEdits(...args) as unknown,
}))

const { JournalSync } = await import('~/stores/journal-sync')
const { Refusal } = await import('~/network/api')

const edit = (id: string): Edit => ({ id, kind: 'edit', label: id, patches: [], inverse: [] })

function start(onConflict: (conflict: Conflict, pending: Edit[]) => Edit[] = (_c, pending) => pending) {
  const states: string[] = []
  const acknowledged: string[] = []
  const refused: string[] = []
  const stuck: { id: string; leaveOut: () => void }[] = []
  const sync = new JournalSync('d', 4, {
    state: (s) => states.push(s),
    acknowledged: (edits) => acknowledged.push(...edits.map((e) => e.id)),
    conflict: onConflict,
    refused: (message, later) => {
      refused.push(message)
      return later
    },
    stuck: (_message, e, leaveOut) => stuck.push({ id: e.id, leaveOut }),
  })
  return { sync, states, acknowledged, refused, stuck }
}

const settle = () => vi.advanceTimersByTimeAsync(20)

beforeEach(() => {
  vi.useFakeTimers()
  kept.length = 0
  appendEdits.mockReset()
})

describe('sending edits', () => {
  it('goes on from the acknowledged head and forgets what was acknowledged', async () => {
    appendEdits.mockImplementation((_id, base: number, edits: Edit[]) =>
      Promise.resolve({ appended: { revision: base + edits.length } }),
    )
    const { sync, states, acknowledged } = start()
    sync.push(edit('a'))
    await Promise.resolve()
    expect(kept.map((e) => e.id)).toEqual(['a'])
    await settle()
    sync.push(edit('b'))
    await settle()
    expect(appendEdits.mock.calls.map((c) => c[1] as number)).toEqual([4, 5])
    expect(kept).toEqual([])
    expect(acknowledged).toEqual(['a', 'b'])
    expect(states.at(-1)).toBe('saved')
  })

  it('keeps everything and tries again while the server is away', async () => {
    appendEdits.mockRejectedValueOnce(new Refusal(0, 'away')).mockRejectedValueOnce(new Refusal(0, 'away'))
    appendEdits.mockResolvedValue({ appended: { revision: 6 } })
    const { sync, states } = start()
    sync.push(edit('a'))
    sync.push(edit('b'))
    await settle()
    expect(states.at(-1)).toBe('waiting')
    expect(kept).toHaveLength(2)
    await vi.advanceTimersByTimeAsync(5000)
    expect(states.at(-1)).toBe('saved')
    expect(kept).toEqual([])
    expect((appendEdits.mock.calls.at(-1)![2] as Edit[]).map((e) => e.id)).toEqual(['a', 'b'])
  })

  it('stops at a refusal that is not about the edits, keeps them, and says so', async () => {
    appendEdits.mockRejectedValue(new Refusal(404, 'no such drawing'))
    const { sync, states } = start()
    sync.push(edit('a'))
    await settle()
    await vi.advanceTimersByTimeAsync(60_000)
    expect(appendEdits).toHaveBeenCalledTimes(1)
    expect(states.at(-1)).toBe('refused')
    expect(kept).toHaveLength(1)
  })

  it('finds the edit that will never be taken, leaves it out and goes on', async () => {
    appendEdits.mockImplementation((_id, base: number, edits: Edit[]) =>
      edits.some((e) => e.id === 'bad')
        ? Promise.reject(new Refusal(422, 'no'))
        : Promise.resolve({ appended: { revision: base + edits.length } }),
    )
    const { sync, states, acknowledged, refused } = start()
    const all = ['a', 'b', 'bad', 'c', 'd'].map(edit)
    kept.push(...all)
    sync.resume(all, all)
    await settle()
    expect(acknowledged).toEqual(['a', 'b', 'c', 'd'])
    expect(refused).toEqual(['no'])
    expect(kept).toEqual([])
    expect(states.at(-1)).toBe('saved')
  })

  it('sends long edits in batches that the server takes', async () => {
    appendEdits.mockImplementation((_id, base: number, edits: Edit[]) =>
      Promise.resolve({ appended: { revision: base + edits.length } }),
    )
    const { sync } = start()
    const long = (id: string): Edit => ({
      ...edit(id),
      patches: [{ op: 'replace', path: ['name'], value: 'x'.repeat(1_500_000) }],
    })
    const all = ['a', 'b', 'c', 'd', 'e'].map(long)
    sync.resume(all, all)
    await settle()
    expect(appendEdits.mock.calls.map((c) => (c[2] as Edit[]).length)).toEqual([2, 2, 1])
  })

  it('after a conflict sends what still fits from the new head and forgets the rest', async () => {
    appendEdits.mockResolvedValueOnce({ conflict: { revision: 9, missing: [] } })
    appendEdits.mockResolvedValue({ appended: { revision: 10 } })
    const { sync } = start((_c, pending) => pending.slice(0, 1))
    sync.resume([edit('a'), edit('b')], [edit('a'), edit('b')])
    kept.push(edit('a'), edit('b'))
    await settle()
    expect(appendEdits.mock.calls[1]!.slice(1)).toEqual([9, [edit('a')], null])
    expect(kept).toEqual([])
  })

  it('an edit over which the server fails is found, and the person can go on without it', async () => {
    const taken: string[] = []
    appendEdits.mockImplementation((_id, base: number, edits: Edit[]) => {
      if (edits.some((e) => e.id === 'bad')) return Promise.reject(new Refusal(500, 'Server Error'))
      taken.push(...edits.map((e) => e.id))
      return Promise.resolve({ appended: { revision: base + edits.length } })
    })
    const { sync, stuck, states } = start()
    for (const id of ['a', 'bad', 'b']) sync.push(edit(id))
    await vi.advanceTimersByTimeAsync(120_000)
    expect(taken).toEqual(['a'])
    expect(stuck.map((s) => s.id)).toEqual(['bad'])
    stuck[0]!.leaveOut()
    await settle()
    expect(taken).toEqual(['a', 'b'])
    expect(states.at(-1)).toBe('saved')
    expect(kept).toEqual([])
  })

  it('an edit that comes in while the list is written anew stands in it once', async () => {
    let answer: (v: unknown) => void = () => undefined
    appendEdits.mockImplementationOnce(() => new Promise((done) => (answer = done)))
    appendEdits.mockRejectedValue(new Refusal(0, 'away'))
    const { sync } = start((_c, pending) => pending.map((e) => ({ ...e, id: `${e.id}'` })))
    sync.push(edit('a'))
    await settle()
    answer({ conflict: { revision: 9, missing: [] } })
    await Promise.resolve()
    sync.push(edit('b'))
    await settle()
    expect(kept.map((e) => e.id)).toEqual(["a'", 'b'])
  })

  it('stops when the drawing is closed', async () => {
    appendEdits.mockRejectedValue(new Refusal(0, 'away'))
    const { sync } = start()
    sync.push(edit('a'))
    await settle()
    sync.close()
    await vi.advanceTimersByTimeAsync(60_000)
    expect(appendEdits).toHaveBeenCalledTimes(1)
  })
})
