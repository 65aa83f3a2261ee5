// Draws the pictures of docs/outline-engine.md with the engine itself.
import { mkdirSync, writeFileSync } from 'node:fs'
import { evenWeight, newLine, roundFinish } from '#core/model/create'
import type { Line } from '#core/model/model'
import type { PathNode } from '#core/geometry/path'
import { ArcLength } from '../core/geometry/arc-length'
import type { Cubic } from '../core/geometry/cubic'
import { cubicsOfPath, pathData, pathOfCubics } from '../core/geometry/path'
import { outlineOf } from '../core/outline/expand'
import { cutAtFolds } from '../core/outline/folds'
import { partsOf } from '../core/outline/parts'
import { newRib } from '../core/outline/rib'
import { NormalRibs } from '../core/outline/ribs'
import { fitEdge, fitEnvelope } from '../core/outline/side-curves'
import { toPaths } from '../core/arrangement/contours'
import { DividedInk } from '../core/ink/pieces/divided-ink'
import { LineWidth } from '../core/weight/half-widths'

const TOLERANCE = 0.05
const OUT = 'docs/pictures'

const node = (x: number, y: number, inX: number, inY: number, outX: number, outY: number): PathNode => ({
  at: { x, y },
  in: { x: inX, y: inY },
  out: { x: outX, y: outY },
  joint: 'smooth',
})

const bend: Line = newLine(
  { closed: false, nodes: [node(30, 150, 30, 150, 120, 20), node(270, 150, 170, 20, 270, 150)] },
  {
    weight: {
      ...evenWeight(60),
      stops: [
        { at: 0, left: 0.3, right: 0.5 },
        { at: 0.5, left: 0.7, right: 3.1 },
        { at: 1, left: 0.4, right: 0.4 },
      ],
    },
    finish: roundFinish(),
  },
)

const chain = (cubics: readonly Cubic[], closed = false): string => pathData(pathOfCubics(cubics, closed), 2)
const stroke = (d: string, colour: string, width = 1, dash = ''): string =>
  `<path d="${d}" fill="none" stroke="${colour}" stroke-width="${width}"${dash && ` stroke-dasharray="${dash}"`}/>`

function picture(name: string, width: number, height: number, parts: readonly string[]): void {
  const head = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="100%" height="100%" fill="#fffdf8"/>`
  writeFileSync(`${OUT}/${name}.svg`, `${head}\n${parts.join('\n')}\n</svg>\n`)
}

/** The ribs of a bend tighter than its half-width, its edges, and the curve on which neighbouring ribs cross. */
function ribs(): void {
  const arc = new ArcLength(cubicsOfPath(bend.path))
  const width = new LineWidth(bend.weight, 'centre', arc.total, false)
  const field = new NormalRibs(arc, width)
  const out: string[] = []
  const rib = newRib()
  for (let i = 0; i <= 60; i++) {
    for (const side of [1, -1] as const) {
      field.rib(0, i / 60, side, false, rib)
      out.push(
        stroke(
          `M${rib.cx.toFixed(2)} ${rib.cy.toFixed(2)}L${(rib.cx + rib.half * rib.nx).toFixed(2)} ${(rib.cy + rib.half * rib.ny).toFixed(2)}`,
          '#d6cdbf',
          0.6,
        ),
      )
    }
  }
  out.push(stroke(chain(arc.cubics), '#6f665d', 1, '4 3'))
  for (const side of [1, -1] as const) {
    for (const part of partsOf(arc, width, { from: 0, to: arc.total }, TOLERANCE).parts) {
      for (const piece of cutAtFolds(field, part, side)) {
        out.push(stroke(chain(fitEdge(field, side, [piece], TOLERANCE)), piece.folds ? '#b9690f' : '#211c1a', 1.4))
        if (piece.folds) out.push(stroke(chain(fitEnvelope(field, side, piece, TOLERANCE)), '#7a2b58', 1.8))
      }
    }
  }
  picture('ribs', 300, 190, out)
}

/** The outline that comes of it, with its nodes. */
function outline(): void {
  const contours = outlineOf(bend, TOLERANCE)
  const nodes = contours
    .flat()
    .map(
      (c) =>
        `<circle cx="${c.p0.x.toFixed(2)}" cy="${c.p0.y.toFixed(2)}" r="2.6" fill="#fffdf8" stroke="#7a2b58" stroke-width="1.2"/>`,
    )
  picture('outline', 300, 190, [
    `<path d="${contours.map((c) => chain(c, true)).join('')}" fill="#211c1a" fill-opacity="0.85"/>`,
    ...nodes,
  ])
}

/** Three outlines and the pieces into which they divide each other, the darker the more of them cover it. */
function pieces(): void {
  const lines = [
    [node(30, 60, 30, 60, 120, 0), node(270, 120, 180, 180, 270, 120)],
    [node(40, 140, 40, 140, 130, 200), node(260, 40, 200, 0, 260, 40)],
    [node(150, 15, 150, 15, 90, 90), node(160, 175, 220, 100, 160, 175)],
  ].map((nodes) => newLine({ closed: false, nodes }, { weight: { ...bend.weight, size: 34 }, finish: roundFinish() }))
  const inks = lines.map((l) => outlineOf(l, TOLERANCE))
  const shade = ['#e6d3dd', '#bb8aa5', '#7a2b58']
  picture(
    'pieces',
    300,
    190,
    inks
      .flatMap((ink, i) => DividedInk.of(ink, inks.toSpliced(i, 1), TOLERANCE)?.pieces().all() ?? [])
      .map(
        (p) =>
          `<path d="${toPaths(p.contours())
            .map((c) => pathData(c, 2))
            .join('')}" fill="${shade[p.over.length]}" stroke="#fffdf8" stroke-width="1"/>`,
      ),
  )
}

mkdirSync(OUT, { recursive: true })
ribs()
outline()
pieces()
