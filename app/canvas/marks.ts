import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import type { Nib } from '#core/model/line'
import type { Stray } from '#core/sketch/strays'

/** What a mark stands for, for the instrument whose mark the pointer meets. */
export type MarkRef =
  | { kind: 'node'; line: string; index: number }
  | { kind: 'handle'; line: string; index: number; side: 'in' | 'out' }
  | { kind: 'jaw'; line: string; index: number; side: 'left' | 'right' }
  | { kind: 'stop'; line: string; index: number }
  | { kind: 'corner'; index: number }
  | { kind: 'turner' }
  | { kind: 'closer' }
  | { kind: 'joint'; index: number }
  | { kind: 'end'; line: string; end: 'first' | 'last' }
  | { kind: 'belly'; index: number }
  | { kind: 'tip'; line: string; end: 'first' | 'last' }
  | { kind: 'taper'; line: string; end: 'first' | 'last' }

/** An end: what it was found to do, and what it gets. */
export interface ContactMark {
  at: Vec
  outward: Vec
  found: 'free' | 'meeting' | 'crossing'
  verdict: 'taper' | 'full' | 'leave'
  over: boolean
  /** The person said so, not the rule. */
  decided: boolean
}

/** Something drawn over the ink, in page px; its own size is in screen px. */
export type Mark =
  | { kind: 'paths'; paths: readonly Path[]; tone: 'plum' | 'mute' | 'next' | 'strong' | 'before' }
  | {
      kind: 'node'
      at: Vec
      joint: 'corner' | 'smooth'
      chosen: boolean
      ref: MarkRef | null
      /** To be read, not taken: small enough to leave the ink in sight. */ small?: boolean
    }
  | { kind: 'handle'; from: Vec; at: Vec; ref: MarkRef | null }
  | { kind: 'jaws'; left: Vec; right: Vec; centre: Vec; chosen: boolean; line: string; index: number }
  | { kind: 'tag'; at: Vec; text: string }
  | { kind: 'end'; at: Vec; outward: Vec; ref: MarkRef | null; /** The hand is over it. */ hot?: boolean }
  | { kind: 'box'; from: Vec; to: Vec }
  | { kind: 'frame'; corners: readonly [Vec, Vec, Vec, Vec]; /** Where it is turned by. */ turner?: Vec }
  | { kind: 'closer'; at: Vec; ref: MarkRef }
  | { kind: 'brush'; at: Vec; /** px of the page */ width: number; nib?: Nib | null }
  | { kind: 'snap'; at: Vec; along: Vec | null; text: string }
  | { kind: 'belly'; at: Vec; along: Vec; index: number }
  | { kind: 'tip'; at: Vec; outward: Vec; line: string; end: 'first' | 'last' }
  | { kind: 'taper'; at: Vec; across: Vec; line: string; end: 'first' | 'last' }
  | { kind: 'place'; at: Vec; across: Vec }
  | {
      kind: 'contacts'
      ends: readonly ContactMark[]
      /** px of the page; null: no rings */ reach: number | null
      overshoot: number
    }
  | { kind: 'light'; at: Vec; held: boolean }
  | { kind: 'hairs'; at: readonly { at: Vec; out: Vec }[] }
  /** Pieces of ink: that would be taken away, would come back, or are gone. */
  | { kind: 'pieces'; paths: readonly Path[]; look: 'take' | 'back' | 'gone' }
  /** A region that would be poured in a colour, or from which it would be taken out (null). */
  | { kind: 'region'; paths: readonly Path[]; colour: string | null }
  /** Two forms, each in a tint; all else fades. */
  | { kind: 'forms'; forms: readonly { path: Path; colour: string }[] }
  /** What lies within a form of others that it would hide. */
  | { kind: 'hatched'; by: Path; of: readonly Path[] }
  /** Stretches of lines that lie off the pencil, the farther the wider. */
  | { kind: 'halo'; strays: readonly Stray[] }
  /** What closes gaps. */
  | { kind: 'bridges'; paths: readonly Path[] }
  /** A corner, or an end that meets a line; filled where the person decided about it. */
  | { kind: 'joint'; at: Vec; of: 'corner' | 'end'; decided: boolean; hot: boolean }
  /** Things to look at; one of them is looked at now. */
  | { kind: 'findings'; at: readonly Vec[]; current: Vec | null }
  /** The hand that keys move. */
  | { kind: 'hand'; at: Vec; pressed: boolean }
