import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath } from '#core/geometry/path'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { newLine } from '#core/model/create'
import { hatch } from '../kit/hatch'
import type { Inked } from '../kit/inked'
import { shaded } from '../kit/light'
import type { Point } from '../kit/spline'
import { around, joined, through } from '../kit/spline'
import { floating, outward, weight } from '../kit/weights'

/** The middle of the page: what lies to its right follows from what is drawn. */
const MIDDLE = 360

const closed = (path: Path): Path => ({
  nodes: path.nodes.slice(0, -1).map((n, i) => (i === 0 ? { ...n, in: path.nodes.at(-1)!.in } : n)),
  closed: true,
})

/** An outline that goes round clockwise: its edge away from the middle is heavy. */
const outline = (path: Path, size: number): Line =>
  newLine(path, { weight: shaded(path, size, { outside: 'left', thin: 0.5, stops: 9 }) })

const vein = (...points: Point[]): Line => newLine(through(...points), { weight: outward(3.4, 0.2) })

/** The wing that lies before, from its root along the upper edge round to where the other comes from beneath. */
function forewing(): Line[] {
  const wing = closed(
    joined(
      through([340, 214], [272, 138], [168, 86], [74, 88]),
      through([74, 88], [86, 138], [112, 186], [120, 232]),
      through([120, 232], [206, 258], [286, 262], [340, 248]),
      through([340, 248], [338, 231], [340, 214]),
    ),
  )
  const spot = around([176, 150], [196, 136], [216, 150], [208, 174], [184, 174])
  const pupil = around([188, 152], [198, 146], [206, 154], [200, 164], [190, 163])
  return [
    outline(wing, 7),
    vein([336, 222], [272, 170], [224, 148]),
    vein([334, 230], [270, 204], [216, 178]),
    vein([334, 238], [258, 232], [196, 214]),
    newLine(through([104, 108], [122, 150], [144, 222]), { weight: floating(4.2, 0.5) }),
    newLine(through([124, 104], [142, 146], [162, 218]), { weight: floating(3.2, 0.5) }),
    outline(spot, 4.6),
    newLine(pupil, { weight: weight(3.4, [0, 0.9], [0.5, 1]) }),
    ...hatch(
      [
        [94, 116],
        [106, 152],
        [124, 200],
      ],
      [
        [100, 114],
        [113, 150],
        [132, 198],
      ],
      7,
      2.6,
      0.1,
    ),
  ]
}

/** The wing beneath, of one outline, with its scalloped edge. */
function hindwing(): Line[] {
  const wing = closed(
    joined(
      through([338, 240], [270, 236], [196, 240], [150, 262]),
      through([150, 262], [142, 292], [152, 320]),
      through([152, 320], [160, 350], [186, 372]),
      through([186, 372], [212, 400], [246, 402]),
      through([246, 402], [292, 380], [322, 330], [346, 290]),
      through([346, 290], [344, 262], [338, 240]),
    ),
  )
  return [
    outline(wing, 6.6),
    vein([330.6, 282], [268, 306], [212, 340]),
    vein([329, 296], [284, 338], [244, 376]),
    newLine(through([168, 282], [178, 330], [214, 372]), { weight: floating(3.8, 0.5) }),
    newLine(around([196, 284], [208, 273], [220, 284], [210, 297]), { weight: weight(3.6, [0, 0.8], [0.5, 1]) }),
  ]
}

/** Head, thorax and body, each drawn down one side: they end on the middle, and go on across it. */
function body(): Line[] {
  const thorax = through([MIDDLE, 186], [338, 198], [330, 232], [340, 268], [MIDDLE, 278])
  const abdomen = through([MIDDLE, 262], [334, 280], [328, 330], [340, 384], [MIDDLE, 414])
  const head = through([MIDDLE, 158], [344, 163], [338, 178], [346, 192], [MIDDLE, 197])
  const half = (path: Path, size: number): Line => newLine(path, { weight: weight(size, [0, 0.7], [0.5, 1], [1, 0.9]) })
  const ring = (y: number, x: number): Line =>
    newLine(through([x, y], [346, y + 7], [MIDDLE, y + 8]), { weight: weight(3.4, [0, 0.6], [1, 1]) })
  return [
    half(abdomen, 6.4),
    ring(302, 329.8),
    ring(327, 328),
    ring(352, 331),
    ring(376, 338),
    half(thorax, 6),
    newLine(through([344, 216], [351, 234], [350, 256]), { weight: floating(3.2, 0.5) }),
    half(head, 5.4),
    newLine(around([345, 174], [349, 170], [352, 175], [348, 179]), { weight: weight(3.2, [0, 0.9], [0.5, 1]) }),
  ]
}

/** The feeler, with its short hairs. */
function feeler(): Line[] {
  const stem = through([348.6, 161.6], [318, 132], [282, 66])
  const arc = new ArcLength(cubicsOfPath(stem))
  const hairs = [0.2, 0.37, 0.54, 0.7, 0.86].map((share, i) => {
    const { x, y } = arc.point(share * arc.total)
    return newLine(through([x, y], [x - 9, y + 1 - i], [x - 16, y + 4 - 2 * i]), { weight: outward(2.6) })
  })
  return [newLine(stem, { weight: outward(4.4) }), ...hairs]
}

/** A moth with its wings spread: half of it drawn, the other follows. */
export function hedgeMoth(): Inked {
  return {
    name: 'Hedge moth',
    layers: [
      { name: 'Hindwing', lines: hindwing() },
      { name: 'Forewing', lines: forewing() },
      { name: 'Body', lines: [...feeler(), ...body()] },
    ],
    fronts: 'layers',
    mirrored: MIDDLE,
  }
}
