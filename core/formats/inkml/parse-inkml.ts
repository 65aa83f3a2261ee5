import type { SaxesAttributeNS } from 'saxes'
import type { TraceSample } from '../../model/model'
import { InputError } from '../../errors'
import { readXml } from '../xml'

/** What a number of each point stands for. */
interface Channel {
  name: string
  /** What maps the file's numbers onto ours: (value - least) x scale. */
  least: number
  scale: number
}

const USUAL: readonly Channel[] = [
  { name: 'X', least: 0, scale: 1 },
  { name: 'Y', least: 0, scale: 1 },
]

/** Milliseconds between the points of a file that does not say. */
const USUAL_STEP = 8

/** Pressure where the file has none. */
const EVEN = 0.5

/** Most points of a file, and of one trace. */
const MOST_SAMPLES = 200_000
const MOST_OF_ONE = 50_000

/**
 * The traces of an InkML file (W3C, Ink Markup Language, 2011): points by the file's own channels, as they are or as first
 * and second differences. Pressure is brought to 0..1 by the channel's range, time to ms from each trace's first point.
 *
 * @throws InputError with a sentence for people when the text is not InkML, is hostile, too large or holds no trace
 */
export function parseInkml(text: string): TraceSample[][] {
  const reader = new InkReader()
  readXml(text, 'InkML', 'ink', reader)
  if (!reader.traces.length)
    throw new InputError('file', 'This InkML file holds no trace. Record one and export it again.')
  return reader.traces
}

class InkReader {
  readonly traces: TraceSample[][] = []
  private channels: Channel[] = [...USUAL]
  /** The text of the trace that is being read, in pieces. */
  private words: string[] | null = null
  private count = 0

  open(name: string, attributes: Record<string, SaxesAttributeNS>): void {
    const value = (key: string): string | undefined => attributes[key]?.value
    if (name === 'traceFormat') this.channels = []
    if (name === 'channel')
      this.channels.push(channelOf(value('name') ?? '', value('min'), value('max'), value('units')))
    if (name === 'trace') this.words = []
  }

  close(name: string): void {
    if (name === 'traceFormat' && !this.channels.length) this.channels = [...USUAL]
    if (name !== 'trace' || this.words === null) return
    this.take(this.words.join(''))
    this.words = null
  }

  text(text: string): void {
    this.words?.push(text)
  }

  private take(words: string): void {
    const trace = this.traces.length + 1
    const count = commasIn(words) + 1
    this.count += count
    if (this.count > MOST_SAMPLES) throw tooMany('This InkML file', this.count, MOST_SAMPLES)
    if (count > MOST_OF_ONE) throw tooMany(`Trace ${trace} of this InkML file`, count, MOST_OF_ONE)
    const points = decoded(words, this.channels.length, trace)
    if (!points.length) return
    const at = (name: string): number => this.channels.findIndex((c) => c.name === name)
    const [x, y, t, f, tiltX, tiltY] = ['X', 'Y', 'T', 'F', 'OTx', 'OTy'].map(at) as [
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    if (x < 0 || y < 0)
      throw new InputError('file', 'The traces of this InkML file have no X and Y, so there is nothing to draw.')
    const number = (p: readonly number[], i: number): number =>
      (p[i]! - this.channels[i]!.least) * this.channels[i]!.scale
    const began = t < 0 ? 0 : number(points[0]!, t)
    this.traces.push(
      points.map((p, i): TraceSample => ({
        x: number(p, x),
        y: number(p, y),
        t: t < 0 ? i * USUAL_STEP : number(p, t) - began,
        pressure: f < 0 ? EVEN : Math.min(1, Math.max(0, number(p, f))),
        ...(tiltX >= 0 && tiltY >= 0 && { tiltX: number(p, tiltX), tiltY: number(p, tiltY) }),
      })),
    )
  }
}

const tooMany = (what: string, count: number, most: number): InputError =>
  new InputError(
    'file',
    `${what} has ${count.toLocaleString('en')} points or more; up to ${most.toLocaleString('en')} can be brought in. Record it in shorter parts.`,
  )

function commasIn(words: string): number {
  let n = 0
  for (let at = words.indexOf(','); at >= 0; at = words.indexOf(',', at + 1)) n++
  return n
}

function channelOf(name: string, min: string | undefined, max: string | undefined, units: string | undefined): Channel {
  if (name === 'F') {
    const least = Number(min ?? 0)
    const span = Number(max ?? 1) - least
    return { name, least, scale: span > 0 ? 1 / span : 1 }
  }
  return { name, least: 0, scale: name === 'T' && units === 's' ? 1000 : 1 }
}

/** How a number counts: as it is, or as the first or second difference to those before. */
type Order = 0 | 1 | 2
const MARKS: Record<string, Order> = { '!': 0, "'": 1, '"': 2 }

/** A number of a point, with the mark before it; white space has been brought to single spaces. */
const NUMBER = /([!'"]?) ?(-?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)/gi

/** No point is longer than this, characters. */
const LONGEST_POINT = 2000

/** The points of a trace as rows of `width` numbers. */
function decoded(words: string, width: number, trace: number): number[][] {
  const order = new Array<Order>(width).fill(0)
  const velocity = new Array<number>(width).fill(0)
  let before: number[] | null = null
  return words
    .split(',')
    .map((w) => w.replace(/\s+/g, ' ').trim())
    .filter((w) => w)
    .map((point, i) => {
      const numbers = point.length > LONGEST_POINT ? [] : [...point.matchAll(NUMBER)]
      if (numbers.length < width || point.replace(NUMBER, '').trim()) {
        throw new InputError(
          'file',
          `Point ${i + 1} of trace ${trace} of this InkML file ("${point.slice(0, 40)}") does not have the ${width} numbers that its format asks for.`,
        )
      }
      const row = numbers.slice(0, width).map(([, mark, digits], k) => {
        if (mark) order[k] = MARKS[mark]!
        const v = Number(digits)
        const last = before?.[k] ?? 0
        if (order[k] === 2) velocity[k]! += v
        else velocity[k] = order[k] === 1 ? v : v - last
        return order[k] === 0 ? v : last + velocity[k]!
      })
      before = row
      return row
    })
}
