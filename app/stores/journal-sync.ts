import type { Edit } from '#core/drawing/edits'
import type { Conflict } from '#agreed/api'
import { appendEdits, Refusal } from '~/network/api'
import { forgetEdits, keepEdit } from '~/network/outbox'

export type SaveState = 'saved' | 'saving' | 'waiting' | 'refused'

const LONGEST_PAUSE = 15_000

/** A batch holds at most this many edits, and this many characters unless one edit alone has more. */
const BATCH = { edits: 200, length: 4_000_000 }

/** Answers that mean: these edits, as they are, will never be taken. */
const NEVER = new Set([400, 413, 422])

/**
 * Sends a drawing's edits to the server in order, one batch at a time, and keeps each in the browser until it is
 * acknowledged. While the server does not answer it tries again, ever less often.
 */
export class JournalSync {
  private pending: Edit[] = []
  private running: Promise<void> | null = null
  private pause = 500
  private timer: ReturnType<typeof setTimeout> | undefined
  private closed = false
  /** How many edits are to be sent alone, to find the one that the server refuses. */
  private oneByOne = 0

  constructor(
    private readonly drawing: string,
    private revision: number,
    private readonly on: {
      state: (state: SaveState, message?: string) => void
      /** The server has these edits now. */
      acknowledged: (edits: Edit[]) => void
      /** Another hand was faster: answers the pending edits as they fit now. */
      conflict: (conflict: Conflict, pending: Edit[]) => Edit[]
      /** The first pending edit will never be taken: answers those of the later ones that still fit without it. */
      refused: (message: string, later: Edit[]) => Edit[]
    },
  ) {}

  /** Takes up `kept`, the edits that an earlier visit could not send, as they fit now. */
  resume(kept: Edit[], now: Edit[]): void {
    this.pending = kept
    void this.replacePending(now).catch(() => undefined)
    this.start()
  }

  push(edit: Edit): void {
    this.pending.push(edit)
    void keepEdit(this.drawing, edit).catch(() => this.on.state('waiting', 'This browser does not let Bellatrait keep unsaved steps. Leave the page open until it says Saved.'))
    this.start()
  }

  /** Resolves when nothing is left to send or sending has to wait. */
  async settled(): Promise<void> {
    while (this.running) await this.running
  }

  close(): void {
    this.closed = true
    clearTimeout(this.timer)
  }

  private start(): void {
    clearTimeout(this.timer)
    if (!this.pending.length) {
      this.on.state('saved')
      return
    }
    this.running ??= this.run().then((drained) => {
      this.running = null
      // An edit may have come in after the last look.
      if (drained && this.pending.length) this.start()
    })
  }

  /** Sends until nothing is left; answers whether it came to that. */
  private async run(): Promise<boolean> {
    while (this.pending.length && !this.closed) {
      this.on.state('saving')
      const batch = this.nextBatch()
      try {
        await this.send(batch)
        this.pause = 500
      } catch (e) {
        if (this.closed || !(e instanceof Refusal && NEVER.has(e.status))) {
          this.failed(e)
          return false
        }
        // Sent one by one, the good edits of the batch get through up to the bad one.
        if (batch.length > 1) this.oneByOne = batch.length
        else await this.replacePending(this.on.refused(e.message, this.pending.slice(1)))
      }
    }
    if (!this.closed && !this.pending.length) this.on.state('saved')
    return !this.closed
  }

  private nextBatch(): Edit[] {
    if (this.oneByOne > 0) {
      this.oneByOne--
      return this.pending.slice(0, 1)
    }
    const most = this.pending.slice(0, BATCH.edits)
    let length = 0
    const end = most.findIndex((e, i) => (length += JSON.stringify(e).length) > BATCH.length && i > 0)
    return end < 0 ? most : most.slice(0, end)
  }

  /** Goes on with `now` instead of the pending edits, here and in what this browser keeps. */
  private async replacePending(now: Edit[]): Promise<void> {
    const before = this.pending.map((e) => e.id)
    this.pending = now
    for (const edit of now) if (!before.includes(edit.id)) await keepEdit(this.drawing, edit)
    const ids = new Set(now.map((e) => e.id))
    await forgetEdits(this.drawing, new Set(before.filter((id) => !ids.has(id))))
  }

  private async send(batch: Edit[]): Promise<void> {
    const answer = await appendEdits(this.drawing, this.revision, batch)
    if ('conflict' in answer) {
      this.revision = answer.conflict.revision
      await this.replacePending(this.on.conflict(answer.conflict, this.pending))
      return
    }
    this.revision = answer.appended.revision
    this.pending = this.pending.slice(batch.length)
    this.on.acknowledged(batch)
    await forgetEdits(this.drawing, new Set(batch.map((e) => e.id)))
  }

  private failed(e: unknown): void {
    const refusal = e instanceof Refusal ? e : new Refusal(0, String(e))
    const final = refusal.status >= 400 && refusal.status < 500
    this.on.state(final ? 'refused' : 'waiting', refusal.message)
    if (final || this.closed) return
    this.timer = setTimeout(() => this.start(), this.pause)
    this.pause = Math.min(LONGEST_PAUSE, this.pause * 2)
  }
}
