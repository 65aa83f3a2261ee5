import type { Line } from '../../core/drawing/model'
import { newLine } from '../../core/drawing/create'
import { hatch, leaf } from '../kit/leaf'
import type { Point } from '../kit/spline'
import { around, through } from '../kit/spline'
import { between, floating, outward, weight } from '../kit/weights'

const CENTRE: Point = [404, 232]

/** A place on the shell: `turns` from the mouth inwards, `share` of the way in to the next whorl. */
function whorl(turns: number): Point {
  const r = 132 * 0.6 ** turns
  const a = 1.95 + turns * 2 * Math.PI
  return [CENTRE[0] + r * 1.06 * Math.cos(a), CENTRE[1] + 4 * turns + r * 0.98 * Math.sin(a)]
}

/** A ridge across the shell, from one whorl to the next, bowed along the growth. */
function ridge(turns: number, size: number): Line {
  const outer = whorl(turns)
  const inner = whorl(turns + 1)
  const mid = whorl(turns + 0.5 - 0.46)
  const at = (u: number): Point => [outer[0] + (inner[0] - outer[0]) * u, outer[1] + (inner[1] - outer[1]) * u]
  const bow: Point = [at(0.5)[0] + (mid[0] - outer[0]) * 0.16, at(0.5)[1] + (mid[1] - outer[1]) * 0.16]
  return newLine(through(at(0.05), bow, at(0.8)), { weight: weight(size, [0, 0.9], [0.4, 0.7], [1, 0]) })
}

/** A snail on its way over the ground. */
export function gardenSnail(): { name: string; layers: { name: string; lines: Line[] }[] } {
  const spiral = Array.from({ length: 29 }, (_, i) => whorl(i * 0.125))
  return {
    name: 'Garden snail',
    layers: [
      {
        name: 'Ground',
        lines: [
          newLine(through([58, 431], [190, 436], [330, 433], [470, 437], [664, 430]), { weight: floating(4.4, 0.55) }),
          newLine(through([150, 448], [216, 451], [280, 448]), { weight: floating(3) }),
          newLine(through([452, 451], [530, 454], [588, 450]), { weight: floating(3) }),
          newLine(through([614, 431], [622, 388], [650, 352]), { weight: outward(5) }),
          newLine(through([620, 431], [636, 404], [668, 388]), { weight: outward(4) }),
          newLine(through([606, 432], [600, 398], [584, 374]), { weight: outward(4.4) }),
          newLine(through([84, 431], [76, 404], [54, 384]), { weight: outward(4) }),
          newLine(through([92, 432], [96, 398], [88, 366]), { weight: outward(4.6) }),
        ],
      },
      {
        name: 'Body',
        lines: [
          // The neck and head, in the light above.
          newLine(through([322, 338], [276, 310], [232, 264], [196, 239], [160, 244]), { weight: weight(5, [0, 0.9], [0.5, 0.7], [1, 0.8]) }),
          newLine(through([160, 244], [138, 258], [134, 284], [152, 304]), { weight: between(6, 0.6) }),
          // Chest and foot, in shadow below.
          newLine(through([152, 304], [170, 346], [162, 392], [136, 427]), { weight: weight(8, [0, 0.6], [0.5, 1], [1, 0.7]) }),
          newLine(through([136, 427], [290, 423], [450, 426], [650, 428]), { weight: weight(9, [0, 0.6], [0.4, 1], [0.8, 0.7], [1, 0.1]) }),
          newLine(through([474, 336], [532, 366], [590, 406], [650, 427]), { weight: weight(5.4, [0, 0.9], [0.5, 0.8], [1, 0.1]) }),
          newLine(through([186, 400], [300, 390], [440, 394], [570, 412]), { weight: floating(3.6, 0.4) }),
          // Horns with their eyes, and the two feelers.
          newLine(through([196, 239], [182, 196], [170, 152]), { weight: weight(4, [0, 0.9], [0.6, 0.7], [1, 0.7]) }),
          newLine(through([180, 237], [168, 198], [160, 154]), { weight: weight(4.6, [0, 0.8], [0.6, 0.8], [1, 0.7]) }),
          newLine(around([158, 146], [165, 139], [172, 145], [166, 153]), { weight: weight(5, [0, 0.8], [0.5, 1.1]) }),
          newLine(through([164, 243], [138, 206], [110, 174]), { weight: weight(4, [0, 0.9], [0.6, 0.7], [1, 0.7]) }),
          newLine(through([154, 247], [126, 214], [101, 181]), { weight: weight(4.6, [0, 0.8], [0.6, 0.8], [1, 0.7]) }),
          newLine(around([98, 174], [105, 167], [112, 173], [106, 181]), { weight: weight(5, [0, 0.8], [0.5, 1.1]) }),
          newLine(through([134, 282], [120, 288], [104, 284]), { weight: outward(5) }),
          newLine(through([142, 296], [128, 306], [112, 306]), { weight: outward(4.6) }),
          newLine(through([152, 304], [164, 300], [174, 290]), { weight: outward(4) }),
          ...hatch([[178, 334], [178, 366], [166, 402]], [[210, 322], [214, 356], [204, 390]], 6, 2.6, -0.1),
        ],
      },
      {
        name: 'Shell',
        lines: [
          newLine(through(...spiral), { weight: weight(11, [0, 0.55], [0.1, 1], [0.28, 0.62], [0.42, 0.5], [0.58, 0.72], [0.8, 0.42], [1, 0]) }),
          // The last whorl's underside, over the body, from the mouth to the far side.
          newLine(through(spiral[0]!, [418, 366], [476, 340], [506, 292], whorl(0.68)), { weight: weight(9, [0, 0.7], [0.35, 1], [0.7, 0.8], [1, 0.4]) }),
          newLine(through(spiral[0]!, [326, 346], [300, 318], [288, 286]), { weight: weight(6, [0, 0.8], [0.5, 0.9], [1, 0.2]) }),
          newLine(through([352, 332], [404, 344], [456, 322], [480, 286]), { weight: floating(3.2) }),
          ...[0.13, 0.22, 0.31, 0.4, 0.49, 0.58, 0.67, 1.1, 1.24, 1.38, 1.52, 1.68].map((t, i) => ridge(t, i < 7 ? 4 : 3.2)),
        ],
      },
      {
        name: 'Leaf',
        lines: leaf({ rib: [[664, 250], [628, 200], [598, 140], [600, 70]], left: 30, right: 34, veins: 3, shade: 'right', size: 4.6 }),
      },
    ],
  }
}
