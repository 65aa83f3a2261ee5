import type { Line } from '#core/model/model'
import { newLine } from '#core/model/create'
import type { Path } from '#core/geometry/path'
import { hatch } from '../kit/hatch'
import type { Inked } from '../kit/inked'
import { shaded } from '../kit/light'
import type { Point } from '../kit/spline'
import { around, ellipse, joined, through } from '../kit/spline'
import { between, floating, outward, weight } from '../kit/weights'

/** A thing of the pile: its outlines whole, as if nothing lay before them. */
type Thing = readonly Line[]

/** An outline that goes round clockwise: thin towards the light, heavy away from it. */
const outline = (path: Path, size = 7, thin = 0.42): Line =>
  newLine(path, { weight: shaded(path, size, { outside: 'left', thin, stops: 9 }) })

const closed = (path: Path): Path => ({
  nodes: path.nodes.slice(0, -1).map((n, i) => (i === 0 ? { ...n, in: path.nodes.at(-1)!.in } : n)),
  closed: true,
})

/** Points by a frame: so far along it, and so far across. */
const frame =
  ([x, y]: Point, angle: number, scale = 1) =>
  (along: number, across: number): Point => [
    x + (along * Math.cos(angle) - across * Math.sin(angle)) * scale,
    y + (along * Math.sin(angle) + across * Math.cos(angle)) * scale,
  ]

/** A clay pot: a rim with the opening seen from above, and a body of one line whose ends run in under the rim. */
function pot(x: number, top: number, half: number, height: number, shadow: boolean): Thing {
  const flat = half * 0.2
  const band = half * 0.36
  const rim = closed(
    joined(
      through([x - half, top], [x, top - flat], [x + half, top]),
      through([x + half, top], [x + half * 0.97, top + band]),
      through([x + half * 0.97, top + band], [x, top + band + flat], [x - half * 0.97, top + band]),
      through([x - half * 0.97, top + band], [x - half, top]),
    ),
  )
  const mouth = ellipse(x, top + 1, half * 0.84, flat * 0.66)
  const foot = half * 0.6
  const under = band * 0.7
  const body = joined(
    through([x + half * 0.86, top + under], [x + foot, top + height]),
    through([x + foot, top + height], [x, top + height + flat * 0.7], [x - foot, top + height]),
    through([x - foot, top + height], [x - half * 0.86, top + under]),
  )
  const edge = (u: number): Point => {
    const k = half * 0.86 + (foot - half * 0.86) * u
    return [x + k, top + under + (height - under) * u]
  }
  return [
    newLine(body, { weight: shaded(body, 7.5, { outside: 'left', thin: 0.45, stops: 12 }) }),
    outline(rim, 7),
    newLine(mouth, { weight: shaded(mouth, 4.6, { outside: 'right', thin: 0.4, stops: 8 }) }),
    ...(shadow
      ? hatch(
          [0.16, 0.5, 0.86].map((u): Point => [edge(u)[0] - 7, edge(u)[1]]),
          [0.2, 0.54, 0.9].map((u): Point => [edge(u)[0] - half * 0.34, edge(u)[1] + 5]),
          9,
          3,
          0.1,
        )
      : []),
  ]
}

/** A pumpkin with its ribs, and a stalk before it. */
function pumpkin(x: number, y: number, rx: number, ry: number): Thing {
  const at = (u: number, v: number): Point => [x + u * rx, y + v * ry]
  const skin = around(
    at(-1, 0.02),
    at(-0.72, -0.72),
    at(-0.14, -0.86),
    at(0.2, -0.84),
    at(0.76, -0.68),
    at(1, 0.08),
    at(0.7, 0.82),
    at(0.02, 0.97),
    at(-0.72, 0.78),
  )
  const ribs = [-0.62, -0.24, 0.2, 0.6].map((u) =>
    newLine(through(at(u * 0.16, -0.76), at(u * 0.86, -0.34), at(u * 1.02, 0.2), at(u * 0.66, 0.95 - 0.12 * u * u)), {
      weight: between(4.4, 0.62, 0.5),
    }),
  )
  const stalk = around(
    at(-0.13, -0.74),
    at(-0.1, -1.0),
    at(-0.2, -1.24),
    at(-0.08, -1.3),
    at(0.05, -1.24),
    at(0.07, -1.0),
    at(0.14, -0.74),
    at(0.0, -0.67),
  )
  return [
    outline(skin, 8.5),
    ...ribs,
    outline(stalk, 5),
    newLine(through(at(-0.05, -0.78), at(-0.03, -1.0), at(-0.1, -1.18)), { weight: floating(3, 0.35) }),
    newLine(through(at(0.05, -0.79), at(0.03, -0.98), at(0.0, -1.12)), { weight: floating(3, 0.35) }),
  ]
}

/** An onion: a bulb that runs out to a neck, with lines that follow its form. */
function onion(x: number, y: number, r: number): Thing {
  const at = (u: number, v: number): Point => [x + u * r, y + v * r]
  const skin = closed(
    joined(
      through(at(-0.1, -1.42), at(-0.15, -1.05), at(-0.5, -0.78), at(-1, -0.06), at(-0.66, 0.72), at(0, 0.92)),
      through(at(0, 0.92), at(0.7, 0.7), at(1.02, -0.04), at(0.54, -0.76), at(0.2, -1.04), at(0.22, -1.36)),
      through(at(0.22, -1.36), at(0.06, -1.26), at(-0.1, -1.42)),
    ),
  )
  const rib = (u: number): Line =>
    newLine(through(at(u * 0.16, -0.98), at(u * 0.62, -0.6), at(u, 0), at(u * 0.56, 0.74)), {
      weight: floating(3.6, 0.55),
    })
  const roots = [-0.16, 0.02, 0.2].map((u) =>
    newLine(through(at(u * 0.6, 0.9), at(u, 1.02), at(u * 1.9, 1.12)), { weight: outward(2.6) }),
  )
  return [outline(skin, 7), rib(-0.56), rib(-0.1), rib(0.44), rib(0.74), ...roots]
}

/** A carrot that lies: its crown at a place, and its tip so far along. */
function carrot(crown: Point, angle: number, length: number): Thing {
  const p = frame(crown, angle, length / 200)
  const skin = around(
    p(0, -14),
    p(8, -29),
    p(34, -31),
    p(96, -22),
    p(156, -11),
    p(200, -1),
    p(198, 3),
    p(150, 11),
    p(92, 22),
    p(30, 30),
    p(6, 26),
  )
  const rings = (
    [
      [34, -31, 0.5],
      [74, -25, 0.36],
      [62, 27, -0.4],
      [112, 16, -0.36],
    ] as const
  ).map(([along, across, way]) =>
    newLine(through(p(along, across), p(along + 3, across + way * 18), p(along + 1, across + way * 38)), {
      weight: outward(3.2),
    }),
  )
  const tuft = (
    [
      [-14, -34, -66],
      [-2, -8, -78],
      [12, 22, -70],
    ] as const
  ).map(([from, to, far]) =>
    newLine(through(p(-3.4, from * 0.5), p(far * 0.45, to * 0.5), p(far, to)), { weight: outward(5) }),
  )
  return [outline(skin, 6.6), ...rings, ...tuft]
}

/** A beetroot with the stubs of its leaves, and a tail. */
function beet(x: number, y: number, r: number): Thing {
  const at = (u: number, v: number): Point => [x + u * r, y + v * r]
  const skin = closed(
    joined(
      through(at(-0.34, -0.86), at(-0.9, -0.5), at(-0.98, 0.2), at(-0.5, 0.78), at(-0.1, 0.98), at(0.16, 1.4)),
      through(at(0.16, 1.4), at(0.2, 1.0), at(0.62, 0.7), at(1.02, 0.08), at(0.86, -0.56), at(0.36, -0.88)),
      through(at(0.36, -0.88), at(0.02, -0.78), at(-0.34, -0.86)),
    ),
  )
  const stub = (a: number, b: number, lean: number): Line =>
    outline(
      around(
        at(a, -0.72),
        at(a + lean * 0.5, -1.2),
        at(a + lean, -1.62),
        at((a + b) / 2 + lean, -1.7),
        at(b + lean, -1.6),
        at(b + lean * 0.5, -1.2),
        at(b, -0.72),
      ),
      5,
    )
  return [
    stub(-0.32, -0.06, -0.34),
    stub(0.1, 0.36, 0.36),
    stub(-0.12, 0.16, 0.02),
    outline(skin, 7),
    newLine(through(at(-0.74, -0.2), at(-0.72, 0.16), at(-0.5, 0.5)), { weight: floating(3.4, 0.45) }),
    newLine(through(at(0.44, -0.5), at(0.68, -0.24), at(0.74, 0.06)), { weight: floating(3.4, 0.45) }),
    ...hatch(
      [at(0.8, 0.26), at(0.58, 0.56), at(0.28, 0.78)],
      [at(0.46, 0.2), at(0.28, 0.44), at(0.08, 0.66)],
      7,
      3,
      -0.12,
    ),
  ]
}

/** A head of garlic. */
function garlic(x: number, y: number, r: number): Thing {
  const at = (u: number, v: number): Point => [x + u * r, y + v * r]
  const skin = closed(
    joined(
      through(at(-0.08, -1.5), at(-0.14, -1.0), at(-0.72, -0.6), at(-1.04, 0.14), at(-0.62, 0.74), at(0, 0.8)),
      through(at(0, 0.8), at(0.66, 0.74), at(1.06, 0.1), at(0.7, -0.6), at(0.2, -0.98), at(0.24, -1.44)),
      through(at(0.24, -1.44), at(0.08, -1.38), at(-0.08, -1.5)),
    ),
  )
  const clove = (u: number): Line =>
    newLine(through(at(u * 0.22, -0.84), at(u * 0.86, -0.3), at(u * 0.92, 0.3), at(u * 0.42, 0.66)), {
      weight: floating(3.4, 0.55),
    })
  return [outline(skin, 6), clove(-0.5), clove(0.12), clove(0.66)]
}

/** A packet of seeds that leans: a flap, and a label with a pea pod. */
function packet(corner: Point, angle: number): Thing {
  const p = frame(corner, angle)
  const paper = closed(
    joined(
      through(p(0, 0), p(52, -1.5), p(104, 0)),
      through(p(104, 0), p(105.5, 74), p(103, 148)),
      through(p(103, 148), p(50, 149.5), p(1, 148)),
      through(p(1, 148), p(-1.5, 74), p(0, 0)),
    ),
  )
  const pod = around(p(26, 96), p(40, 78), p(62, 70), p(80, 70), p(70, 86), p(48, 98))
  const peas = [
    [44, 86],
    [56, 80],
    [67, 76],
  ].map(([u, v]) =>
    newLine(around(p(u! - 4, v!), p(u!, v! - 4), p(u! + 4, v!), p(u!, v! + 4)), {
      weight: weight(2.6, [0, 0.8], [0.5, 1]),
    }),
  )
  return [
    outline(paper, 6.4, 0.5),
    newLine(through(p(0.5, 27), p(52, 24.5), p(104, 27)), { weight: between(3.6, 0.5, 0.7) }),
    outline(pod, 4.4),
    ...peas,
    ...[112, 122].map((v) =>
      newLine(through(p(30, v), p(52, v - 1), p(v === 112 ? 76 : 64, v)), { weight: floating(3.2, 0.4) }),
    ),
  ]
}

/** A trowel: the blade with its shaft, and the handle that the shaft goes into. */
function trowel(top: Point, angle: number): Thing {
  const p = frame(top, angle)
  const handle = around(
    p(0, -11),
    p(-4, 0),
    p(0, 11),
    p(34, 13),
    p(72, 10),
    p(98, 13),
    p(104, 0),
    p(98, -13),
    p(72, -10),
    p(34, -13),
  )
  const blade = closed(
    joined(
      through(p(92, -5), p(132, -4), p(164, -7)),
      through(p(164, -7), p(172, -34), p(214, -36), p(268, -24), p(302, 0)),
      through(p(302, 0), p(268, 24), p(214, 36), p(172, 34), p(164, 7)),
      through(p(164, 7), p(132, 4), p(92, 5)),
      through(p(92, 5), p(90, 0), p(92, -5)),
    ),
  )
  return [
    outline(blade, 6.4),
    newLine(through(p(166, 0), p(216, 1), p(276, 0)), { weight: outward(4) }),
    outline(handle, 6.2),
    newLine(through(p(12, 5), p(40, 6), p(66, 4)), { weight: floating(3, 0.4) }),
    newLine(through(p(92, -12.8), p(96, 0), p(92, 12.8)), { weight: between(3.2, 0.5, 0.7) }),
  ]
}

/** Strokes of the bench between things. */
const ground = (...spans: readonly (readonly [number, number, number])[]): Line[] =>
  spans.map(([from, to, y]) =>
    newLine(through([from, y], [(from + to) / 2, y - 1], [to, y + 1]), { weight: floating(4, 0.5) }),
  )

/** Pots, roots and bulbs in a heap on the bench, every outline drawn whole; what lies before what is said apart. */
export function pottingBench(): Inked {
  return {
    name: 'Potting bench',
    layers: [
      { name: 'Bench', lines: ground([14, 46, 446], [640, 708, 440], [668, 700, 452], [612, 640, 456]) },
      { name: 'Behind', lines: [...pot(206, 128, 104, 268, true), ...pumpkin(490, 274, 136, 118)] },
      { name: 'Middle', lines: [...trowel([330, 62], 1.36), ...pot(620, 276, 66, 138, true), ...onion(318, 362, 62)] },
      {
        name: 'Before',
        lines: [
          ...packet([44, 262], 0.14),
          ...beet(440, 372, 50),
          ...garlic(528, 410, 38),
          ...carrot([104, 424], 0.1, 190),
          ...carrot([436, 476], 3.28, 176),
        ],
      },
    ],
    fronts: 'layers',
  }
}
