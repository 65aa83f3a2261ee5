import fc from 'fast-check'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { newDrawing, newLinesLayer } from '#core/model/create'
import type { Drawing, Fill } from '#core/model/model'
import { useDeliveryStore } from '../../app/stores/delivery'
import { useDrawingStore } from '../../app/stores/drawing'
import { CHANGEABLE, commandOf, COMMANDS } from '../../app/commands/commands'
import { keysCard } from '../../app/commands/keys-card'
import { useKeysStore } from '../../app/stores/keys'
import { GUIDE, nextStep } from '~/stores/guide-steps'
import type { PassName } from '~/catalogue/passes'
import { plainLine } from './support/desk'

const thread = vi.hoisted(() => ({ make: vi.fn(), preview: vi.fn(), end: vi.fn(), download: vi.fn() }))
vi.mock('~/workers/delivery-thread', () => ({ deliveryThread: () => thread, endDelivery: thread.end }))
vi.mock('~/network/download', () => ({ download: thread.download }))

beforeEach(() => {
  setActivePinia(createPinia())
  vi.resetAllMocks()
})

describe("keys of one's own", () => {
  it('change places: what a key did goes to the one that is free', () => {
    const keys = useKeysStore()
    keys.reset()
    expect(keys.change('d', 'n')).toBe('Next profile')
    expect([keys.keyOf('d'), keys.keyOf('n'), keys.meaningOf('n'), keys.meaningOf('d')]).toEqual(['n', 'd', 'd', 'n'])
    expect(keys.change('d', ';')).toBeNull()
    expect([keys.meaningOf(';'), keys.meaningOf('d'), keys.meaningOf('n')]).toEqual(['d', 'n', null])
    keys.reset()
    expect(keys.meaningOf('n')).toBe('n')
  })

  it('never do two things, however they are changed', () => {
    const key = fc.constantFrom(...CHANGEABLE.map((c) => c.key), 'v', 'z', '7')
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...CHANGEABLE.map((c) => c.key)), key), { maxLength: 12 }),
        (changes) => {
          const keys = useKeysStore()
          keys.reset()
          for (const [was, to] of changes) keys.change(was, to)
          expect(new Set(CHANGEABLE.map((c) => keys.keyOf(c.key))).size).toBe(CHANGEABLE.length)
          for (const c of CHANGEABLE) expect(keys.meaningOf(keys.keyOf(c.key))).toBe(c.key)
        },
      ),
    )
  })
})

describe('the table of commands', () => {
  const pressed = (c: (typeof COMMANDS)[number]): string => `${!!c.ctrl} ${!!c.shift} ${c.key}`

  it('has one command for each key, and every key that can be changed is on the card', () => {
    expect(new Set(COMMANDS.map(pressed)).size).toBe(COMMANDS.length)
    expect(keysCard((k) => k)[0]).toEqual(['1 2 3 4 5 6', 'Go to a pass'])
    const keys = keysCard((k) => k).flatMap(([at]) => at.toLowerCase().split(' '))
    const onCard = keys.map((k) => (k.length > 1 ? k.replace(/,$/, '') : k))
    for (const c of CHANGEABLE) expect(onCard).toContain(c.key)
  })

  it('shows keys of one\u2019s own on the card and in titles, but never for Ctrl', () => {
    const keys = useKeysStore()
    keys.reset()
    keys.change('d', ';')
    const rows = new Map(keysCard(keys.keyOf).map(([at, does]) => [does, at]))
    expect(rows.get('Copy, paste at the pointer, duplicate, choose all')).toBe('Ctrl + C, Ctrl + V, Ctrl + D, Ctrl + A')
    expect(rows.get('One up, one down in the layer; with Shift to front, to back')).toBe('U ;')
    expect([keys.titled('To back', 'back'), keys.titled('Undo', 'undo')]).toEqual([
      'To back (Shift + ;)',
      'Undo (Ctrl + Z)',
    ])
    keys.reset()
  })

  it('tells what a key does with Shift and with Ctrl', () => {
    expect([commandOf('<', true, false), commandOf('m', true, false), commandOf('c', false, false)]).toEqual([
      'turn-left-little',
      'mirror-lines',
      null,
    ])
    expect([
      commandOf('z', true, true),
      commandOf('v', true, true),
      commandOf('c', true, true),
      commandOf('+', false, true),
    ]).toEqual(['redo', 'paste-in-place', 'copy', null])
  })
})

it('the guide goes through all its steps in order, each until it is done', () => {
  const lines = [0, 1, 2].map((i) => plainLine({ x: 10, y: 20 * i }, { x: 90, y: 20 * i + 7 }))
  const tapered = lines.map((l, i) =>
    i
      ? l
      : { ...l, weight: { ...l.weight, end: { length: 20, unit: '%' as const, tip: 0, ease: 'straight' as const } } },
  )
  const swelling = lines.map((l, i) =>
    i
      ? l
      : {
          ...l,
          weight: {
            ...l.weight,
            stops: [
              { at: 0, left: 1, right: 1 },
              { at: 1, left: 2, right: 2 },
            ],
          },
        },
  )
  const drawing = (of: typeof lines, over: Partial<Drawing> = {}): Drawing =>
    newDrawing('First', { layers: [newLinesLayer('Lines', of)], ...over })
  const fills: Fill[] = [{ id: 'f', ink: 'black', where: 'region', at: { x: 0, y: 0 }, hold: [], gap: 0 }]
  const states: [Drawing, PassName[], boolean][] = [
    [drawing([]), [], false],
    [drawing([]), ['lines'], false],
    [drawing(lines.slice(0, 1)), ['lines'], false],
    [drawing(lines), ['lines'], false],
    [drawing(swelling), ['lines'], false],
    [drawing(tapered), ['lines'], false],
    [drawing(tapered), ['lines', 'shapes'], false],
    [drawing(tapered, { fills }), ['lines', 'shapes'], false],
  ]
  expect(
    states.map(([d, visited, delivered]) => nextStep({ drawing: d, visited: new Set(visited), delivered })?.step.id),
  ).toEqual(['sketch', 'lines', 'more', 'weight', 'contact', 'shapes', 'fill', 'deliver'])
  expect(
    states.map(([d, visited, delivered]) => nextStep({ drawing: d, visited: new Set(visited), delivered })?.at),
  ).toEqual(GUIDE.map((_, i) => i))
  expect(
    nextStep({ drawing: drawing(tapered, { fills }), visited: new Set(['lines', 'shapes']), delivered: true }),
  ).toBeNull()
})

describe('delivery', () => {
  const made = (size: number) => ({
    picture: null,
    box: { minX: 0, minY: 0, maxX: 1, maxY: 1 },
    sheets: [],
    nodes: size,
    size,
  })
  const opened = () => {
    useDrawingStore().drawing = newDrawing('Leaving')
    return useDeliveryStore()
  }

  it('that is stopped leaves nothing, and its thread ends', async () => {
    thread.make.mockReturnValue(new Promise(() => undefined))
    const delivery = opened()
    const answer = delivery.make(() => undefined)
    await vi.waitFor(() => expect(thread.make).toHaveBeenCalled())
    expect(delivery.making).toBe(true)
    delivery.stop()
    expect(await answer).toBeNull()
    expect([
      delivery.making,
      delivery.progress,
      thread.end.mock.calls.length,
      thread.download.mock.calls.length,
    ]).toEqual([false, null, 1, 0])
  })

  it('shows what was asked for last, whichever is made first, and nothing that is behind', async () => {
    const answers: ((of: unknown) => void)[] = []
    thread.preview.mockImplementation(() => new Promise((resolve) => answers.push(resolve)))
    const delivery = opened()
    const [first, second] = [delivery.show(() => undefined), delivery.show(() => undefined)]
    await vi.waitFor(() => expect(answers).toHaveLength(2))
    answers[1]!(made(2))
    await second
    answers[0]!(made(1))
    await first
    expect([delivery.preview?.size, delivery.told]).toEqual([2, true])
    const third = delivery.show(() => undefined)
    await vi.waitFor(() => expect(answers).toHaveLength(3))
    delivery.outdate()
    answers[2]!(made(3))
    await third
    expect([delivery.preview?.size, delivery.told]).toEqual([2, false])
  })
})
