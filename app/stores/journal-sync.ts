import type { Edit } from '#core/document/edits'
import type { Conflict } from '#shared/edits'
import { appendEdits, Refusal } from '~/network/api'
import { keepAcknowledged } from '~/network/kept-drawings'
import { forgetEdits, keepEdits } from '~/network/outbox'

export type SaveState = 'saved' | 'saving' | 'waiting' | 'refused'

const LONGEST_PAUSE = 15_000

/** A batch holds at most this many edits, and this many characters unless one edit alone has more. */
const BATCH = { edits: 200, length: 4_000_000 }

/** Answers that mean: these edits, as they are, will never be taken. */
const NEVER = new Set([400, 413, 422])

/** So often the server may fail over the same edits before it is looked for which of them it fails over. */
const MOST_FAILURES = 3

const inTheLog = (e: unknown): void => console.warn('A step is not part of what is kept here:', e)

/** What a drawing's edits and its server do to each other. */
export interface SyncEvents {
  /** `status` is that of the answer that led there, 0 where there was none. */
  state: (state: SaveState, message?: string, status?: number) => void
  /** The server has these edits now. */
  acknowledged: (edits: Edit[]) => void
  /** Another hand was faster: answers the pending edits as they fit now. */
  conflict: (conflict: Conflict, pending: Edit[]) => Edit[]
  /** The first pending edit will never be taken: answers those of the later ones that still fit without it. */
  refused: (message: string, later: Edit[]) => Edit[]
  /** The server fails over this one edit again and again; `leaveOut` goes on without it. */
  stuck: (message: string, edit: Edit, leaveOut: () => void) => void
}

/**
 * Sends a drawing's edits to the server in order, one batch at a time, and keeps each in the browser until it is
 * acknowledged. While the server does not answer it tries again, ever less often.
 */
export class JournalSync {
  private pending: readonly Edit[] = []
  private running: Promise<void> | null = null
  private pause = 500
  private timer: ReturnType<typeof setTimeout> | undefined
  private closed = false
  /** How many edits are to be sent alone, to find the one that the server refuses. */
  private oneByOne = 0
  /** How often the server failed over the batch at hand. */
  private failures = 0
  private told = ''
  /** What is being written to this browser's keeping: one thing after the other. */
  private keeping: Promise<void> = Promise.resolve()

  /** @param head id of the edit that made the revision, null where that is not known */
  constructor(
    private readonly drawing: string,
    private revision: number,
    private readonly on: SyncEvents,
    private head: string | null = null,
  ) {}

  /** Takes up `kept`, the edits that an earlier visit could not send, as they fit now. */
  resume(kept: readonly Edit[], now: readonly Edit[]): void {
    this.pending = kept
    this.replacePending(now)
    this.start()
  }

  push(edit: Edit): void {
    this.pending = [...this.pending, edit]
    this.keep(() => keepEdits(this.drawing, [edit]))
    this.start()
  }

  /** Resolves when nothing is left to send or sending has to wait, and this browser has kept what it should. */
  async allSent(): Promise<void> {
    while (this.running) await this.running
    await this.keeping
  }

  close(): void {
    this.closed = true
    clearTimeout(this.timer)
  }

  private keep(work: () => Promise<void>): void {
    this.keeping = this.keeping.then(work).catch(() => {
      if (!this.closed && this.pending.length)
        this.on.state(
          'waiting',
          'This browser does not let Bellatrait keep unsaved steps. Leave the page open until it says Saved.',
        )
    })
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
        this.failures = 0
      } catch (e) {
        if (this.closed || !(e instanceof Refusal && NEVER.has(e.status))) {
          this.failed(e, batch)
          return false
        }
        // Sent one by one, the good edits of the batch get through up to the bad one.
        if (batch.length > 1) this.oneByOne = batch.length
        else this.replacePending(this.on.refused(e.message, this.pending.slice(1)))
      }
    }
    if (!this.closed && !this.pending.length) this.on.state('saved')
    return !this.closed
  }

  private nextBatch(): Edit[] {
    if (this.oneByOne > 0) return this.pending.slice(0, 1)
    const most = this.pending.slice(0, BATCH.edits)
    let length = 0
    const end = most.findIndex((e, i) => (length += JSON.stringify(e).length) > BATCH.length && i > 0)
    return end < 0 ? most : most.slice(0, end)
  }

  /** Goes on with `now` instead of the pending edits, here and in what this browser keeps, in their new order. */
  private replacePending(now: readonly Edit[]): void {
    const ids = new Set(now.map((e) => e.id))
    const gone = this.pending.map((e) => e.id).filter((id) => !ids.has(id))
    const same = now.length === this.pending.length && now.every((e, i) => e === this.pending[i])
    // A copy: edits that come in while this is being written are kept by themselves.
    this.pending = [...now]
    // Of a window that is closed by then the list stays as it is, for the next one that opens.
    if (!same) this.keep(() => (this.closed ? Promise.resolve() : keepEdits(this.drawing, now, gone)))
  }

  private async send(batch: Edit[]): Promise<void> {
    const answer = await appendEdits(this.drawing, this.revision, batch, this.head)
    if (this.closed) {
      // Whoever opens the drawing next takes up what is kept: only what the server has now is forgotten.
      if ('appended' in answer) this.known(batch, answer.appended.revision)
      return
    }
    if ('conflict' in answer) {
      const { conflict } = answer
      this.revision = conflict.revision
      this.head = conflict.missing.at(-1)?.edit.id ?? this.head
      this.keep(() => keepAcknowledged(this.drawing, conflict.missing).catch(inTheLog))
      this.replacePending(this.on.conflict(conflict, [...this.pending]))
      return
    }
    this.revision = answer.appended.revision
    this.head = batch.at(-1)!.id
    this.oneByOne = Math.max(0, this.oneByOne - batch.length)
    this.pending = this.pending.slice(batch.length)
    this.on.acknowledged(batch)
    this.known(batch, answer.appended.revision)
  }

  /** The server has these: they are part of the drawing as this browser keeps it, and are sent no more. */
  private known(batch: readonly Edit[], revision: number): void {
    const first = revision - batch.length + 1
    const kept = batch.map((edit, i) => ({ revision: first + i, edit }))
    this.keep(() => keepAcknowledged(this.drawing, kept).catch(inTheLog))
    this.keep(() =>
      forgetEdits(
        this.drawing,
        batch.map((e) => e.id),
      ),
    )
  }

  private failed(e: unknown, batch: readonly Edit[]): void {
    const refusal = e instanceof Refusal ? e : new Refusal(0, String(e))
    // Whoever names the passphrase again goes on where it stopped.
    const final = refusal.status >= 400 && refusal.status < 500 && refusal.status !== 401
    this.on.state(final ? 'refused' : 'waiting', refusal.message, refusal.status)
    if (final || this.closed) return
    if (refusal.status === 500 && ++this.failures >= MOST_FAILURES) this.single(refusal.message, batch)
    this.timer = setTimeout(() => this.start(), this.pause)
    this.pause = Math.min(LONGEST_PAUSE, this.pause * 2)
  }

  /** Looks for the edit that the server fails over; the person may go on without it, and is told once. */
  private single(message: string, batch: readonly Edit[]): void {
    this.failures = 0
    if (batch.length > 1) {
      this.oneByOne = batch.length
      this.pause = 500
      return
    }
    const edit = batch[0]!
    if (this.told === edit.id) return
    this.told = edit.id
    this.on.stuck(message, edit, () => {
      if (this.closed || this.pending[0]?.id !== edit.id || this.running) return
      this.replacePending(this.on.refused(`"${edit.label}" could not be saved.`, this.pending.slice(1)))
      this.pause = 500
      this.start()
    })
  }
}
