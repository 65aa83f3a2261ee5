import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import type { Mark, MarkRef } from '~/canvas/marks'

/** One sample of a stroke, in page px; pressure 0..1, time in ms. */
export interface HandSample {
  at: Vec
  pressure: number
  time: number
  tiltX?: number
  tiltY?: number
}

/** A press, move or release of the pointer. */
export interface Hand {
  at: Vec
  screen: Vec
  mark: MarkRef | null
  shift: boolean
  alt: boolean
  /** The key that keeps points from being drawn to others is held. */
  free: boolean
  device: 'pen' | 'mouse' | 'touch' | 'practice'
  /** 2 for the second press of a double-click. */
  clicks: number
  /** All samples since the last move, the newest last. */
  samples: HandSample[]
}

/** A line that is being laid and is no step yet: a fresh one, or one that is gone on with, as it would be. */
export interface UnderWay {
  label: string
  line: Line
  /** The line is in the drawing already and takes this form. */
  replaces: boolean
}

/** An instrument of the tray: pointer and key events in, edits and marks out. */
export interface Instrument {
  readonly name: string
  /** CSS cursor over the canvas. */
  readonly cursor: string
  /** What the hand can do now, in the tray's words. */
  hint(): string
  marks(): Mark[]
  /** Ink of a stroke that is not in the drawing yet; what is scraped away shows as paper. */
  freshInk?(): Line | null
  readonly scrapes?: boolean
  press?(hand: Hand): void
  move?(hand: Hand): void
  release?(hand: Hand): void
  /** The pointer was taken away, or undo came, in the middle of a press: what is under the hand goes, and nothing else. */
  cancel?(): void
  /** The pointer left the canvas with nothing pressed: what it hovered over is let go. */
  away?(): void
  /** The drawing changed other than by this hand (undo, another window): lets go of what it holds of the drawing. */
  overtaken?(): void
  /** Undo while something is half made: takes its last bit back. Answers whether there was any. */
  stepBack?(): boolean
  /** Answers whether the key meant something. */
  key?(key: string, shift: boolean): boolean
  /** Preferences, the selection or the drawing changed: what is proposed is worked out anew. */
  review?(): void
  /** What would be kept were the instrument put down now, or null. */
  underWay?(): UnderWay | null
  /** All that is laid and is no step yet, to be taken up again; null while there is nothing. */
  laid?(): unknown
  /** Takes up what `laid` of an instrument of this kind answered. */
  takeUp?(laid: unknown): void
  /** What is taken up is a step at once. */
  readonly takesUpSteps?: true
  /** The instrument is put down. */
  leave?(): void
}

export const screenDistance = (a: Vec, b: Vec): number => Math.hypot(a.x - b.x, a.y - b.y)

/** A press becomes a drag after this many screen px. */
export const DRAG_START = 3

/** `all` with one more, or without it where it was among them. */
export const toggled = <T>(all: readonly T[], one: T): T[] =>
  all.includes(one) ? all.filter((a) => a !== one) : [...all, one]

/** How far an arrow key moves what is chosen, page px: 1, or 10 with Shift. Null for other keys. */
export function arrowStep(key: string, shift: boolean): Vec | null {
  const step = shift ? 10 : 1
  switch (key) {
    case 'ArrowLeft':
      return { x: -step, y: 0 }
    case 'ArrowRight':
      return { x: step, y: 0 }
    case 'ArrowUp':
      return { x: 0, y: -step }
    case 'ArrowDown':
      return { x: 0, y: step }
    default:
      return null
  }
}

/** A move kept to the one of the two axes that it follows more. */
export const straightened = (d: Vec): Vec => (Math.abs(d.x) > Math.abs(d.y) ? { x: d.x, y: 0 } : { x: 0, y: d.y })
