import type { Line, TraceSample } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import { Freehand } from './freehand'
import type { Hand, HandSample, Instrument } from './instrument'
import type { Edits, NextLine, Pencil, Selection, Trace, View } from './worktop'

/** How much faster a trace plays than it was drawn, where that is wanted. */
const FAST = 8

/** A trace on its way onto the page. */
interface Playing {
  samples: readonly TraceSample[]
  offset: Vec
  next: number
  stop: () => void
}

/** Plays recorded pen traces onto the canvas, as if a hand drew them with pressure. */
export class Practice implements Instrument {
  readonly name = 'Practice'
  readonly cursor = 'crosshair'
  private readonly hand: Freehand
  private playing: Playing | null = null

  constructor(private readonly worktop: Edits & Selection & View & NextLine & Pencil & Trace) {
    this.hand = new Freehand(worktop)
  }

  hint(): string {
    if (this.playing) return `${this.hand.hint()} · Click: at once to its end`
    return this.worktop.practiceTrace()
      ? 'Click: the trace is drawn from here · Enter: in its own place'
      : 'Choose a trace below, or bring in an InkML file'
  }

  press(hand: Hand): void {
    if (this.playing) {
      this.toEnd()
      return
    }
    const samples = this.trace()
    if (samples) this.play(samples, { x: hand.at.x - samples[0]!.x, y: hand.at.y - samples[0]!.y })
  }

  /** The trace to play, or null after saying that there is none. */
  private trace(): readonly TraceSample[] | null {
    const samples = this.worktop.practiceTrace()
    if (samples?.length) return samples
    this.worktop.say(
      'No trace is chosen yet. Choose one below the drawing; those that ship with the application take a moment to come.',
    )
    return null
  }

  private play(samples: readonly TraceSample[], offset: Vec): void {
    const first = this.handAt(samples[0]!, offset)
    this.hand.press({ ...first, samples: [sampleOf(samples[0]!, offset)] })
    if (!this.hand.drawing) return
    const pace = this.worktop.preferences().practice.fast ? FAST : 1
    const began = samples[0]!.t
    const playing: Playing = { samples, offset, next: 1, stop: () => undefined }
    this.playing = playing
    playing.stop = this.worktop.everyFrame((ms) => {
      const due = samples.findLastIndex((s) => s.t - began <= ms * pace)
      return this.advance(playing, due)
    })
  }

  /** Draws up to sample `due`; answers whether there is more to come. */
  private advance(playing: Playing, due: number): boolean {
    const { samples, offset } = playing
    if (due >= playing.next) {
      const now = samples.slice(playing.next, due + 1)
      playing.next = due + 1
      const hand = { ...this.handAt(now[now.length - 1]!, offset), samples: now.map((s) => sampleOf(s, offset)) }
      this.hand.move(hand)
    }
    if (playing.next < samples.length) return true
    this.playing = null
    this.hand.release({ ...this.handAt(samples[samples.length - 1]!, offset), samples: [] })
    return false
  }

  private handAt(s: TraceSample, offset: Vec): Hand {
    const at = { x: s.x + offset.x, y: s.y + offset.y }
    return {
      at,
      screen: at,
      mark: null,
      shift: false,
      alt: false,
      free: false,
      device: 'practice',
      clicks: 1,
      samples: [],
    }
  }

  private toEnd(): void {
    const { playing } = this
    if (!playing) return
    playing.stop()
    this.advance(playing, playing.samples.length - 1)
    this.worktop.refresh()
  }

  key(key: string): boolean {
    if (key === 'Escape' && this.playing) {
      this.drop()
      return true
    }
    if (key !== 'Enter' || this.playing) return false
    const samples = this.trace()
    if (samples) this.play(samples, { x: 0, y: 0 })
    return true
  }

  private drop(): void {
    this.playing?.stop()
    this.playing = null
    this.hand.cancel()
    this.worktop.refresh()
  }

  /** Another instrument is taken up while a trace plays: it is drawn to its end. */
  leave(): void {
    this.toEnd()
  }

  overtaken(): void {
    this.hand.overtaken()
  }

  stepBack(): boolean {
    const any = !!this.playing
    if (any) this.drop()
    return any
  }

  freshInk(): Line | null {
    return this.hand.freshInk()
  }

  marks(): Mark[] {
    return []
  }
}

const sampleOf = (s: TraceSample, offset: Vec): HandSample => ({
  at: { x: s.x + offset.x, y: s.y + offset.y },
  pressure: s.pressure,
  time: s.t,
  ...(s.tiltX !== undefined && { tiltX: s.tiltX, tiltY: s.tiltY }),
})
