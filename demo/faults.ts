import { evenWeight, newDrawing, newFillsLayer, newLine, newLinesLayer } from '#core/model/create'
import type { Amendment, Drawing, Fill, Line, Shape, Taper } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import type { FindingKind } from '../core/proof/finding'

/** Cells of the sheet, px, and how many a row has. */
const CELL = 64
const COLUMNS = 12
/** Px a mm, as on the usual page. */
const PX_PER_MM = 6

export interface Fault {
  kind: FindingKind
  at: Vec
}

const OUT: Taper = { length: 30, unit: '%', tip: 0, ease: 'straight' }

/**
 * A sheet of deliberate faults, a few of every kind and each in a cell of its own, among lines without any; and where they are.
 * `seed` moves and turns what lies in the cells.
 */
export function faultySheet(seed = 1): { drawing: Drawing; faults: Fault[] } {
  const lines: Line[] = []
  const faults: Fault[] = []
  const amendments: Amendment[] = []
  const fills: Fill[] = []
  const solids: Shape[] = []
  let cell = 0
  let x = Math.imul(seed, 2654435761) >>> 0
  const chance = (): number => {
    x ^= x << 13
    x >>>= 0
    x ^= x >>> 17
    x ^= x << 5
    x >>>= 0
    return x / 4294967296
  }
  /** Lays out one cell: its own coordinates run from -1 to 1 and are turned a little. */
  const inCell = (lay: (p: (u: number, v: number) => Vec, id: string) => void): void => {
    const c = { x: 40 + (cell % COLUMNS) * CELL + CELL / 2, y: 40 + Math.floor(cell / COLUMNS) * CELL + CELL / 2 }
    const a = chance() * Math.PI * 2
    lay(
      (u, v) => ({
        x: c.x + 20 * (u * Math.cos(a) - v * Math.sin(a)),
        y: c.y + 20 * (u * Math.sin(a) + v * Math.cos(a)),
      }),
      `cell ${cell}`,
    )
    cell++
  }
  const line = (
    id: string,
    a: Vec,
    b: Vec,
    size: number,
    over: Partial<Line> = {},
    tapers: [Taper | null, Taper | null] = [OUT, OUT],
    bend = 0.06,
  ): void => {
    const bow = { x: (a.y - b.y) * bend, y: (b.x - a.x) * bend }
    const third = (t: number): Vec => ({ x: a.x + (b.x - a.x) * t + bow.x, y: a.y + (b.y - a.y) * t + bow.y })
    lines.push(
      newLine(
        {
          nodes: [
            { at: a, in: null, out: third(1 / 3), joint: 'corner' },
            { at: b, in: third(2 / 3), out: null, joint: 'corner' },
          ],
          closed: false,
        },
        { id, weight: { ...evenWeight(size), start: tapers[0], end: tapers[1] }, ...over },
      ),
    )
  }
  const wall = (p: (u: number, v: number) => Vec, id: string): void =>
    line(`${id} wall`, p(0.4, -1), p(0.4, 1), 5, {}, [OUT, OUT], 0)
  const fault = (kind: FindingKind, at: Vec): void => void faults.push({ kind, at })

  for (let i = 0; i < 6; i++) {
    const size = 3 + chance() * 4
    inCell((p, id) => (line(id, p(-1, 0), p(0.9, 0.1), size, {}, [OUT, null]), fault('blunt', p(0.9, 0.1))))
    inCell(
      (p, id) => (
        wall(p, id),
        line(id, p(-1, 0), p(0.16 - chance() * 0.1, 0), 3, {}, [OUT, null]),
        fault('gap', p(0.1, 0))
      ),
    )
    inCell(
      (p, id) => (
        wall(p, id),
        line(id, p(-1, 0), p(0.62 + chance() * 0.1, 0), 3, {}, [OUT, null]),
        fault('past', p(0.65, 0))
      ),
    )
    inCell(
      (p, id) => (
        wall(p, id),
        line(id, p(-1, 0), p(0.4, 0), 7, { tuck: { last: 'out' } }, [OUT, null]),
        fault('poke', p(0.4, 0))
      ),
    )
    inCell((p, id) => (line(id, p(-1, 0), p(1, 0), 0.5 + chance() * 0.5), fault('thin', p(0, 0))))
    inCell(
      (p, id) => (
        line(id, p(-1, 0), p(1, 0), 12, {
          weight: {
            ...evenWeight(12),
            stops: [
              { at: 0.3, left: 1, right: 1 },
              { at: 0.5, left: 0.1, right: 0.1 },
              { at: 0.7, left: 1, right: 1 },
            ],
            start: OUT,
            end: OUT,
          },
        }),
        fault('contrast', p(0, 0))
      ),
    )
    inCell(
      (p, id) => (
        line(id, p(-1, 0), p(1, 0), size),
        line(`${id} again`, p(-0.99, 0.01), p(1, 0.01), size),
        fault('doubled', p(0, 0))
      ),
    )
    inCell((p, id) => {
      line(id, p(-0.4, 0), p(0.4, 0), 3)
      lines.push({
        ...newLine(
          {
            nodes: [p(-0.9, -0.8), p(0.9, -0.8), p(0.9, 0.8), p(-0.9, 0.8)].map((at) => ({
              at,
              in: null,
              out: null,
              joint: 'corner' as const,
            })),
            closed: true,
          },
          { id: `${id} patch`, weight: evenWeight(3) },
        ),
        cover: true,
      })
      fault('hidden', p(0, 0))
    })
    inCell((p, id) => (line(id, p(0, 0), p(0.08, 0), 1, {}, [null, null]), fault('speck', p(0, 0))))
    inCell((p, id) => (line(id, p(-1, 0), p(1, 0), size, { ink: 'nearly' }), fault('stray', p(0, 0))))
    inCell((p, id) => {
      line(id, p(-1, 0), p(1, 0), size)
      amendments.push({
        id: `${id} trim`,
        kind: 'trim',
        line: id,
        place: { at: 0.5, ahead: 0, left: 0 },
        over: [],
        bounds: [{ by: `${id} gone`, side: -1 }],
      })
      fault('waiting', p(0, 0))
    })
    inCell((p, id) => {
      // Two fills in what is one region.
      lines.push(
        newLine(
          {
            nodes: [p(-0.8, -0.7), p(0.8, -0.7), p(0.8, 0.7), p(-0.8, 0.7)].map((at) => ({
              at,
              in: null,
              out: null,
              joint: 'corner' as const,
            })),
            closed: true,
          },
          { id: `${id} box`, weight: evenWeight(3) },
        ),
      )
      for (const ink of ['black', 'nearly'])
        fills.push({
          id: `${id} ${ink}`,
          ink,
          where: 'region',
          at: p(ink === 'black' ? 0 : 0.3, 0),
          hold: [{ line: `${id} box`, side: 'right', from: 0, to: ink === 'black' ? 1 : 0.6 }],
          gap: 0,
        })
      fault('joined', p(0.3, 0))
    })
    // A hair of paper between two lines that come together at both ends.
    inCell(
      (p, id) => (
        line(id, p(-1, 0), p(1, 0), 4, {}, [null, null], 0),
        line(`${id} bowed`, p(-1, 0), p(1, 0), 4, {}, [null, null], 0.15),
        fault('sliver', p(0, 0.12))
      ),
    )
    inCell((p, id) => {
      // A box that all but closes.
      const corners = [p(0, -0.7), p(0.8, -0.7), p(0.8, 0.7), p(-0.8, 0.7), p(-0.8, -0.7), p(-0.03, -0.7)]
      lines.push(
        newLine(
          { nodes: corners.map((at) => ({ at, in: null, out: null, joint: 'corner' as const })), closed: false },
          { id, weight: { ...evenWeight(3), start: OUT, end: OUT } },
        ),
      )
      fault('open', p(-0.015, -0.7))
    })
    // A bar with a burr on one side and another with a nick, neither square nor in the middle.
    const bar = (p: (u: number, v: number) => Vec, id: string, kind: 'lump' | 'notch', by: number): void => {
      const at = chance() - 0.5
      const corners = [
        p(-0.9, -0.15),
        p(at, -0.15),
        p(at + 0.01, -0.15 - by),
        p(at + 0.08, -0.15 - 1.3 * by),
        p(at + 0.1, -0.15),
        p(0.9, -0.15),
        p(0.9, 0.2),
        p(-0.9, 0.15),
      ]
      solids.push({
        id,
        contours: [
          { nodes: corners.map((c) => ({ at: c, in: null, out: null, joint: 'corner' as const })), closed: true },
        ],
        ink: 'black',
        from: [],
      })
      fault(kind, p(at + 0.06, -0.15))
    }
    inCell((p, id) => bar(p, id, 'lump', 0.04 + 0.03 * chance()))
    inCell((p, id) => bar(p, id, 'notch', -0.04 - 0.03 * chance()))
    // Without fault: tapered, meeting, crossing far, and far from any wall.
    inCell(
      (p, id) => (
        wall(p, id),
        line(id, p(-1, 0), p(0.4, 0), 4, {}, [OUT, null]),
        line(`${id} over`, p(-0.6, -0.7), p(1.2, -0.5), 3)
      ),
    )
  }
  for (let i = 0; i < 6; i++) {
    const at = { x: 60 + i * 120, y: i % 2 ? 2 : 22 }
    line(`off ${i}`, { x: at.x, y: i % 2 ? -30 : -12 }, { x: at.x + 30, y: i % 2 ? -9 : 20 }, 4)
    fault('off', { x: at.x + 15, y: i % 2 ? -20 : -6 })
  }
  const blank = newDrawing('Faults', { layers: [newLinesLayer('Faults', lines), newFillsLayer('Solids', solids)] })
  const page = {
    width: 40 + COLUMNS * CELL + 40,
    height: 40 + Math.ceil(cell / COLUMNS) * CELL + 40,
    unit: 'mm' as const,
    pxPerMm: PX_PER_MM,
  }
  return {
    drawing: {
      ...blank,
      page,
      amendments,
      fills,
      inks: [...blank.inks, { id: 'nearly', name: 'Nearly black', colour: '#231e1c' }],
    },
    faults,
  }
}
