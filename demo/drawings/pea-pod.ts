import type { Line } from '../../core/drawing/model'
import { newLine } from '../../core/drawing/create'
import { hatch, leaf } from '../kit/leaf'
import type { Point } from '../kit/spline'
import { around, through } from '../kit/spline'
import { between, floating, outward, weight } from '../kit/weights'

/** A pea: its rim, thin towards the light and heavy away from it, and a glint. */
function pea(x: number, y: number, r: number): Line[] {
  const rim: Point[] = [0, 1, 2, 3].map((k) => {
    const a = (k * Math.PI) / 2 - Math.PI * 0.75
    return [x + r * Math.cos(a), y + r * Math.sin(a)]
  })
  return [
    newLine(around(...rim), { weight: weight(6.4, [0, 0.5], [0.25, 0.62], [0.52, 1], [0.78, 0.62]) }),
    newLine(through([x - r * 0.58, y - r * 0.08], [x - r * 0.46, y - r * 0.44], [x - r * 0.08, y - r * 0.6]), { weight: floating(2.6) }),
  ]
}

/** A place on the pod: x along it, y across, seen a little from the right. */
function pod(x: number, y: number): Point {
  const tilt = 0.2
  return [142 + x * Math.cos(tilt) - y * Math.sin(tilt), 258 + x * Math.sin(tilt) + y * Math.cos(tilt)]
}

const along = (...points: [number, number][]): Point[] => points.map(([x, y]) => pod(x, y))

/** An open pod with its peas, the calyx, a tendril and a leaf. */
export function peaPod(): { name: string; layers: { name: string; lines: Line[] }[] } {
  const peas: [number, number, number][] = [[84, 10, 15], [125, 14, 21], [174, 19, 25.5], [227, 22, 26.5], [280, 21, 25.5], [329, 17, 22.5], [371, 11, 17.5]]
  return {
    name: 'Pea pod',
    layers: [
      {
        name: 'Pod',
        lines: [
          // The rim of the near half, over the feet of the peas.
          newLine(through(...along([14, 2], [90, 30], [180, 50], [270, 53], [360, 38], [446, -6])), { weight: weight(6.4, [0, 0.5], [0.45, 0.9], [1, 0.5]) }),
          // The outside of the near half, in shadow below.
          newLine(through(...along([12, 4], [80, 62], [176, 98], [280, 98], [378, 58], [450, -6])), { weight: weight(12, [0, 0.3], [0.25, 0.72], [0.55, 1], [0.82, 0.62], [1, 0.3]) }),
          // The rim of the far half, behind the heads of the peas.
          newLine(through(...along([14, 0], [90, -16], [180, -22], [270, -22], [360, -20], [446, -8])), { weight: weight(4.6, [0, 0.8], [0.45, 0.6], [1, 0.7]) }),
          newLine(through(...along([10, -3], [84, -38], [180, -52], [280, -50], [370, -36], [448, -10])), { weight: weight(5.4, [0, 0.7], [0.5, 0.85], [1, 0.6]) }),
          newLine(through(...along([446, -7], [466, -16], [486, -36])), { weight: outward(6, 0.15) }),
          ...hatch(along([96, 58], [176, 84], [280, 84], [366, 50]), along([104, 44], [180, 64], [276, 66], [352, 47]), 10, 2.4, 0.12),
          ...hatch(along([110, -36], [180, -45], [280, -43], [350, -34]), along([108, -24], [180, -30], [278, -30], [346, -26]), 5, 2, 0.1),
        ],
      },
      { name: 'Peas', lines: peas.flatMap(([x, y, r]) => pea(...pod(x, y), r)) },
      {
        name: 'Stem and tendril',
        lines: [
          newLine(through([148, 250], [122, 220], [110, 182], [112, 138]), { weight: weight(4, [0, 0.9], [0.6, 0.6], [1, 0.6]) }),
          newLine(through([140, 260], [108, 232], [94, 186], [98, 137]), { weight: weight(6.4, [0, 0.8], [0.5, 1], [1, 0.6]) }),
          newLine(through([98, 138], [104, 133], [112, 138]), { weight: between(4) }),
          // The calyx: four pointed sepals round the foot of the pod.
          newLine(through([150, 249], [178, 230], [210, 230]), { weight: outward(5) }),
          newLine(through([210, 230], [186, 246], [156, 255]), { weight: weight(3.6, [0, 0], [0.6, 1], [1, 0.8]) }),
          newLine(through([153, 266], [168, 294], [166, 326]), { weight: outward(5.4) }),
          newLine(through([166, 326], [144, 300], [142, 266]), { weight: weight(4, [0, 0], [0.5, 1], [1, 0.8]) }),
          newLine(through([139, 262], [116, 274], [98, 298]), { weight: outward(4.8) }),
          newLine(through([98, 298], [102, 268], [130, 252]), { weight: weight(3.6, [0, 0], [0.6, 1], [1, 0.7]) }),
          newLine(through([110, 180], [156, 156], [212, 152], [252, 170], [248, 200], [218, 202], [208, 182], [224, 170], [235, 180]), {
            weight: weight(4.6, [0, 1], [0.3, 0.8], [0.7, 0.55], [1, 0]),
          }),
        ],
      },
      {
        name: 'Leaf',
        lines: [
          newLine(through([112, 152], [156, 108], [246, 92], [328, 118]), { weight: weight(4.4, [0, 0.9], [0.6, 0.8], [1, 0.8]) }),
          ...leaf({ rib: [[328, 118], [406, 148], [496, 158], [602, 124]], left: 54, right: 58, veins: 5, shade: 'right', widest: 0.42, size: 5.8 }),
        ],
      },
    ],
  }
}
