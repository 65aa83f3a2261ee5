import type { Edit } from '#core/drawing/edits'
import type { Conflict } from '#agreed/api'
import { appendEdits, Refusal } from '~/network/api'
import { forgetEdits, keepEdit } from '~/network/outbox'

export type SaveState = 'saved' | 'saving' | 'waiting' | 'refused'

const LONGEST_PAUSE = 15_000

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

  constructor(
    private readonly drawing: string,
    private revision: number,
    private readonly on: {
      state: (state: SaveState, message?: string) => void
      /** The server has these edits now. */
      acknowledged: (edits: Edit[]) => void
      /** Another hand was faster: answers the pending edits that still fit. */
      conflict: (conflict: Conflict, pending: Edit[]) => Edit[]
    },
  ) {}

  /** Takes up edits that an earlier visit could not send. */
  resume(edits: Edit[]): void {
    this.pending.push(...edits)
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
    this.running ??= this.run().finally(() => (this.running = null))
  }

  private async run(): Promise<void> {
    while (this.pending.length && !this.closed) {
      this.on.state('saving')
      const batch = this.pending.slice(0, 200)
      try {
        await this.send(batch)
        this.pause = 500
      } catch (e) {
        this.failed(e)
        return
      }
    }
    if (!this.closed) this.on.state('saved')
  }

  private async send(batch: Edit[]): Promise<void> {
    const answer = await appendEdits(this.drawing, this.revision, batch)
    if ('conflict' in answer) {
      const before = this.pending
      this.pending = this.on.conflict(answer.conflict, before)
      this.revision = answer.conflict.revision
      const left = new Set(this.pending.map((e) => e.id))
      await forgetEdits(this.drawing, new Set(before.map((e) => e.id).filter((id) => !left.has(id))))
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
