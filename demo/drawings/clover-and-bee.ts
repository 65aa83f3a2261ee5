import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { newLine } from '#core/model/create'
import { reversePath } from '../../core/geometry/path'
import { shaded } from '../kit/light'
import type { Part } from '../kit/overlap'
import { front, stacked } from '../kit/overlap'
import type { Inked } from '../kit/inked'
import type { Point } from '../kit/spline'
import { around, joined, through } from '../kit/spline'
import { tube, tubeLines } from '../kit/tube'
import { between, floating, outward, weight } from '../kit/weights'

const HEAD: Point = [206, 172]

/** Two ways from one place to another as one closed line, with corners where they meet. */
function closed(a: Path, b: Path): Path {
  const back = reversePath(b).nodes
  const nodes = joined(a, reversePath(b)).nodes.slice(0, -1)
  return { nodes: [{ ...nodes[0]!, in: back.at(-1)!.in }, ...nodes.slice(1)], closed: true }
}

/** A floret of the blossom: a petal from near the middle outwards, round at its tip. */
function floret(angle: number, to: number, wide: number): Part {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const at = (out: number, across: number): Point => [
    HEAD[0] + c * out - s * across,
    HEAD[1] + (s * out + c * across) * 0.92,
  ]
  // One sweep round the tip, and a point where it grows.
  const { nodes } = through(
    at(0, 0),
    at(to * 0.6, -wide),
    at(to * 0.9, -wide * 0.66),
    at(to, wide * 0.08),
    at(to * 0.88, wide * 0.74),
    at(to * 0.56, wide * 0.92),
    at(0, 0),
  )
  const path: Path = { nodes: [{ ...nodes[0]!, in: nodes.at(-1)!.in }, ...nodes.slice(1, -1)], closed: true }
  return {
    layer: 'Blossom',
    lines: [newLine(path, { weight: shaded(path, 5.2, { outside: 'left', thin: 0.6, stops: 8 }) })],
    front: front(path),
  }
}

const ring = (count: number, first: number, to: number, wide: number): Part[] =>
  Array.from({ length: count }, (_, i) => floret(first + (i * 2 * Math.PI) / count, to, wide))

/** A leaflet: a heart on its stalk, with its rib. */
function leaflet(foot: Point, angle: number, size: number): Part {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const at = (out: number, across: number): Point => [
    foot[0] + c * out * size - s * across * size,
    foot[1] + s * out * size + c * across * size,
  ]
  const edge = (k: 1 | -1): Path =>
    through(at(0, 0), at(0.4, 0.42 * k), at(0.84, 0.5 * k), at(1.02, 0.24 * k), at(0.88, 0))
  const path = closed(edge(-1), edge(1))
  return {
    layer: 'Leaves',
    lines: [
      newLine(path, { weight: shaded(path, 7.4, { outside: 'left', thin: 0.6, stops: 12 }) }),
      ...(size > 80 ? [newLine(through(at(0, 0), at(0.4, 0.012), at(0.74, 0)), { weight: outward(3.8) })] : []),
    ],
    front: front(path),
  }
}

/** A wing: its edge and two veins from where it grows. */
function wing(foot: Point, tip: Point, wide: number, veins: boolean): Part {
  const d = { x: tip[0] - foot[0], y: tip[1] - foot[1] }
  const at = (u: number, v: number): Point => [foot[0] + d.x * u - d.y * v * wide, foot[1] + d.y * u + d.x * v * wide]
  const edge = around(at(0, 0), at(0.45, -0.3), at(0.92, -0.26), at(1.02, 0.06), at(0.7, 0.34), at(0.25, 0.2))
  const lines = [newLine(edge, { weight: shaded(edge, 4.8, { outside: 'left', stops: 8, thin: 0.55 }) })]
  if (veins)
    lines.push(
      newLine(through(at(0.1, -0.02), at(0.46, -0.06), at(0.84, -0.1)), { weight: floating(2.8, 0.3) }),
      newLine(through(at(0.1, 0.03), at(0.42, 0.1), at(0.7, 0.18)), { weight: floating(2.8, 0.3) }),
    )
  return { layer: 'Wings', lines, front: front(edge) }
}

/** The bee: head, breast and banded body, in flight towards the blossom. */
function bee(): Part[] {
  const body = around([520, 268], [566, 232], [632, 246], [672, 296], [644, 334], [582, 336], [532, 312])
  const band = (...points: Point[]): Line => newLine(through(...points), { weight: between(3.6, 0.5, 0.8) })
  const breast = around([452, 262], [486, 228], [528, 246], [536, 290], [502, 316], [462, 300])
  const head = around([412, 284], [436, 258], [464, 272], [466, 306], [440, 322], [416, 308])
  const eye = around([424, 286], [436, 276], [446, 288], [438, 304], [426, 300])
  const fuzz = (
    [
      [484, 300, 490, 282],
      [502, 304, 504, 286],
      [519, 296, 517, 280],
    ] as const
  ).map(([x, y, u, v]) => newLine(through([x, y], [(x + u) / 2 + 2, (y + v) / 2], [u, v]), { weight: floating(3) }))
  const pale = (...points: Point[]): Line => newLine(through(...points), { weight: floating(3, 0.4), ink: 'paper' })
  const leg = (...points: Point[]): Line => newLine(through(...points), { weight: outward(5.4, 0.4) })
  const feeler = (...points: Point[]): Line =>
    newLine(through(...points), { weight: weight(4, [0, 1], [0.6, 0.7], [1, 0]) })
  return [
    wing([500, 240], [470, 112], 1, true),
    {
      layer: 'Bee',
      lines: [pale([429, 291], [431, 284], [437, 281]), newLine(eye, { weight: weight(3, [0, 1], [0.5, 1]) })],
      front: front(eye),
    },
    {
      layer: 'Bee',
      lines: [newLine(head, { weight: shaded(head, 6, { outside: 'left', stops: 7, thin: 0.6 }) })],
      front: front(head),
    },
    {
      layer: 'Bee',
      lines: [newLine(breast, { weight: shaded(breast, 6.4, { outside: 'left', stops: 8, thin: 0.6 }) }), ...fuzz],
      front: front(breast),
    },
    wing([520, 244], [600, 116], 1, true),
    {
      layer: 'Bee',
      lines: [
        pale([577, 250], [571, 284], [574, 316]),
        pale([640, 266], [641, 290], [636, 314]),
        newLine(body, { weight: shaded(body, 7.4, { outside: 'left', stops: 10, thin: 0.6 }) }),
        band([558, 236], [548, 284], [556, 326]),
        band([590, 234], [586, 286], [590, 339]),
        band([617, 238], [620, 288], [616, 339]),
        band([652, 258], [659, 298], [648, 333]),
      ],
      front: front(body),
    },
    {
      layer: 'Legs',
      lines: [
        leg([478, 306], [474, 334], [456, 348]),
        leg([506, 314], [508, 350], [490, 374]),
        leg([540, 318], [556, 352], [546, 380]),
        feeler([430, 264], [410, 236], [384, 232]),
        feeler([446, 262], [436, 230], [414, 212]),
      ],
    },
  ]
}

/** A bee that comes to a clover in bloom. */
export function cloverAndBee(): Inked {
  const stem = tube(
    [
      [214, 509],
      [226, 430],
      [222, 340],
      [208, 250],
    ],
    6.5,
    5,
  )
  const stalk = tube(
    [
      [222, 478],
      [268, 470],
      [318, 450],
      [352, 424],
    ],
    4,
    3.2,
  )
  const left = tube(
    [
      [226, 474],
      [200, 460],
      [176, 445],
      [150, 430],
    ],
    4,
    3.2,
  )
  const layers = stacked([
    ...ring(3, Math.PI / 2, 48, 21),
    ...ring(6, -Math.PI / 2, 82, 24),
    ...ring(8, Math.PI / 2, 114, 28),
    leaflet([352, 424], -0.3, 108),
    leaflet([352, 424], -1.72, 104),
    leaflet([352, 424], 1.02, 74),
    leaflet([150, 430], 2.72, 96),
    leaflet([150, 430], -2.36, 92),
    leaflet([150, 430], -1.02, 76),
    ...bee(),
    { layer: 'Stems', lines: tubeLines(stem, 5.6, 'right'), front: stem.front },
    { layer: 'Stems', lines: tubeLines(stalk, 4.4, 'right'), front: stalk.front },
    { layer: 'Stems', lines: tubeLines(left, 4.4, 'left'), front: left.front },
    { layer: 'Ground', lines: [newLine(through([120, 506], [220, 510], [330, 505]), { weight: floating(4.6) })] },
  ])
  return {
    name: 'Clover and bee',
    layers,
    inks: [
      { id: 'paper', name: 'Paper white', colour: '#fffdf8' },
      { id: 'clover', name: 'Clover pink', colour: '#dba3b4' },
      { id: 'honey', name: 'Honey', colour: '#e9bf5c' },
      { id: 'leaf', name: 'Leaf green', colour: '#8fae6b' },
      { id: 'blush', name: 'Blush', colour: '#f0cdd3' },
      { id: 'wing', name: 'Wing', colour: '#dfe9ea' },
    ],
    fills: [
      ...(
        [
          [207, 194],
          [182, 160],
          [228, 159],
        ] as const
      ).map((at) => ({ ink: 'blush', at })),
      ...(
        [
          [205, 124],
          [161, 196],
          [250, 195],
          [150, 142],
          [263, 144],
          [203, 231],
          [121, 171],
          [292, 173],
          [275, 113],
          [140, 110],
          [137, 231],
          [272, 234],
          [208, 82],
          [202, 262],
        ] as const
      ).map((at) => ({ ink: 'clover', at, lit: true })),
      ...(
        [
          [417, 376],
          [315, 353],
          [77, 436],
          [118, 367],
          [180, 398],
          [366, 465],
        ] as const
      ).map((at) => ({ ink: 'leaf', at, lit: true })),
      ...(
        [
          [216, 500],
          [212, 466],
          [233, 477],
        ] as const
      ).map((at) => ({ ink: 'leaf', at })),
      ...(
        [
          [594, 144],
          [484, 132],
        ] as const
      ).map((at) => ({ ink: 'wing', at })),
      ...(
        [
          [502, 264],
          [540, 305],
          [603, 286],
          [663, 294],
          [457, 291],
        ] as const
      ).map((at) => ({ ink: 'honey', at, lit: true })),
      ...(
        [
          [567, 247],
          [630, 323],
          [436, 294],
        ] as const
      ).map((at) => ({ ink: 'black', at })),
    ],
  }
}
