import svgpath from 'svgpath'
import type { Path, PathNode } from '../../geometry/path'
import type { Matrix } from '../../geometry/matrix'
import { InputError } from '../../errors'
import { lengthOf } from './lengths'

/** Longest data of one path, characters: a line has 20,000 nodes at most. */
const LONGEST_DATA = 2_000_000

const same = (a: { x: number; y: number }, b: { x: number; y: number }): boolean => a.x === b.x && a.y === b.y

/** Numbers that each command takes; an arc's flags may stand without a gap, so its runs are left as they are. */
const TAKES: Record<string, number> = { m: 2, l: 2, t: 2, h: 1, v: 1, c: 6, s: 4, q: 4 }

/** Runs of numbers after one command that are longer than this, characters, have the command repeated. */
const LONG_RUN = 4000

/** Numbers of a run that are left together. */
const TOGETHER = 600

/** The same path data with its command letters repeated in long runs of numbers, which the parser reads in square time. */
function inShortRuns(d: string): string {
  if (d.length <= LONG_RUN) return d
  return d.replace(/([a-df-zA-DF-Z])([^a-df-zA-DF-Z]*)/g, (run, command: string, list: string) => {
    const takes = TAKES[command.toLowerCase()]
    if (!takes || list.length <= LONG_RUN) return run
    const numbers = list.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?|[^\s,]/gi) ?? []
    const out = [command, numbers.slice(0, TOGETHER).join(' ')]
    const next = command === 'M' ? 'L' : command === 'm' ? 'l' : command
    for (let i = TOGETHER; i < numbers.length; i += TOGETHER) out.push(next, numbers.slice(i, i + TOGETHER).join(' '))
    return out.join('')
  })
}

/** Subpaths of SVG path data, in absolute cubics, put through `matrix`. */
export function pathsOfData(d: string, matrix: Matrix): Path[] {
  if (d.length > LONGEST_DATA)
    throw new InputError(
      'd',
      `A path is ${Math.round(d.length / 1e6)} million characters long; up to ${LONGEST_DATA / 1e6} million can be read. Split it.`,
    )
  const parsed = svgpath(inShortRuns(d))
  const problem = (parsed as unknown as { err?: string }).err
  if (problem) throw new InputError('d', `A path could not be read: ${problem}`)
  const paths: Path[] = []
  let nodes: PathNode[] = []
  const finish = (closed: boolean): void => {
    if (nodes.length) paths.push(tidy(nodes, closed))
    nodes = []
  }
  const node = (x: number, y: number): PathNode => {
    if (!Number.isFinite(x) || !Number.isFinite(y))
      throw new InputError('d', 'A path holds a coordinate that is not a number.')
    return { at: { x, y }, in: null, out: null, joint: 'corner' }
  }
  parsed
    .abs()
    .unshort()
    .unarc()
    .matrix([...matrix])
    .iterate((s, _index, x, y) => {
      const last = nodes[nodes.length - 1]
      switch (s[0]) {
        case 'M':
          finish(false)
          nodes.push(node(s[1], s[2]))
          break
        case 'Z':
          finish(true)
          break
        default: {
          // After a close, drawing goes on from the start of the subpath.
          if (!last) nodes.push(node(x, y))
          nodes.push(...segmentOf(s as (string | number)[], nodes[nodes.length - 1]!, node))
        }
      }
    })
  finish(false)
  return paths
}

function segmentOf(s: (string | number)[], from: PathNode, node: (x: number, y: number) => PathNode): PathNode[] {
  const [command, ...v] = s as [string, ...number[]]
  const { x, y } = from.at
  if (command === 'L') return [node(v[0]!, v[1]!)]
  if (command === 'H') return [node(v[0]!, y)]
  if (command === 'V') return [node(x, v[0]!)]
  if (command === 'Q') {
    const end = node(v[2]!, v[3]!)
    from.out = { x: x + ((v[0]! - x) * 2) / 3, y: y + ((v[1]! - y) * 2) / 3 }
    end.in = { x: end.at.x + ((v[0]! - end.at.x) * 2) / 3, y: end.at.y + ((v[1]! - end.at.y) * 2) / 3 }
    return [end]
  }
  const end = node(v[4]!, v[5]!)
  const out = node(v[0]!, v[1]!).at
  const into = node(v[2]!, v[3]!).at
  from.out = same(out, from.at) ? null : out
  end.in = same(into, end.at) ? null : into
  return [end]
}

/** A closing node that repeats the first one is folded into it. */
function tidy(nodes: PathNode[], closed: boolean): Path {
  const first = nodes[0]!
  const last = nodes[nodes.length - 1]!
  if (closed && nodes.length > 1 && same(first.at, last.at)) {
    first.in = last.in
    nodes.pop()
  }
  return { nodes: nodes.map(judgeJoint), closed }
}

/** A node is smooth when its handles lie in one line. */
function judgeJoint(n: PathNode): PathNode {
  if (!n.in || !n.out) return n
  const a = { x: n.at.x - n.in.x, y: n.at.y - n.in.y }
  const b = { x: n.out.x - n.at.x, y: n.out.y - n.at.y }
  const angle = Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y))
  return { ...n, joint: angle < 0.01 ? 'smooth' : 'corner' }
}

/** What percentages of a shape are shares of. */
const NO_PORT = { width: 0, height: 0 }

/**
 * Path data of a basic shape, or null when the element is none or draws nothing; lengths have any unit, percentages are meant
 * of `port`.
 *
 * @param declared properties of style sheets, which count before attributes
 */
export function dataOfShape(
  name: string,
  attributes: Readonly<Record<string, string>>,
  port: { width: number; height: number } = NO_PORT,
  declared: Readonly<Record<string, string>> = {},
): string | null {
  const { width, height } = port
  const along = { x: { whole: width }, y: { whole: height }, both: { whole: Math.hypot(width, height) / Math.SQRT2 } }
  const length = (key: string, way: keyof typeof along, otherwise = 0): number =>
    lengthOf(declared[key] ?? attributes[key], along[way]) ?? otherwise
  switch (name) {
    case 'path': {
      const d = declared.d && /^path\(\s*(['"])(.*)\1\s*\)$/s.exec(declared.d)?.[2]
      return d ?? attributes.d ?? null
    }
    case 'line':
      return `M${length('x1', 'x')} ${length('y1', 'y')}L${length('x2', 'x')} ${length('y2', 'y')}`
    case 'polyline':
    case 'polygon': {
      const points = (attributes.points ?? '').trim()
      return points ? `M${points}${name === 'polygon' ? 'Z' : ''}` : null
    }
    case 'circle':
      return ellipse(length('cx', 'x'), length('cy', 'y'), length('r', 'both'), length('r', 'both'))
    case 'ellipse': {
      const [rx, ry] = [length('rx', 'x', Number.NaN), length('ry', 'y', Number.NaN)]
      return ellipse(length('cx', 'x'), length('cy', 'y'), Number.isNaN(rx) ? ry : rx, Number.isNaN(ry) ? rx : ry)
    }
    case 'rect': {
      const [rx, ry] = [length('rx', 'x', Number.NaN), length('ry', 'y', Number.NaN)]
      return rectangle(
        length('x', 'x'),
        length('y', 'y'),
        length('width', 'x'),
        length('height', 'y'),
        Number.isNaN(rx) ? ry : rx,
        Number.isNaN(ry) ? rx : ry,
      )
    }
    default:
      return null
  }
}

function ellipse(cx: number, cy: number, rx: number, ry: number): string | null {
  if (!(rx > 0 && ry > 0)) return null
  return `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}Z`
}

function rectangle(x: number, y: number, w: number, h: number, roundX: number, roundY: number): string | null {
  if (!(w > 0 && h > 0)) return null
  const rx = Math.min(w / 2, Math.max(0, roundX))
  const ry = Math.min(h / 2, Math.max(0, roundY))
  if (!(rx > 0 && ry > 0)) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`
  const turn = (dx: number, dy: number): string => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`
  return `M${x + rx} ${y}H${x + w - rx}${turn(rx, ry)}V${y + h - ry}${turn(-rx, ry)}H${x + rx}${turn(-rx, -ry)}V${y + ry}${turn(rx, -ry)}Z`
}
