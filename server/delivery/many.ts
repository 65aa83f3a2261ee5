import { randomUUID } from 'node:crypto'
import { createWriteStream, rmSync } from 'node:fs'
import { finished } from 'node:stream/promises'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { Drawing, TraceSample } from '#core/model/model'
import { keptTracesOf } from '#core/document/traces-apart'
import { freeFileName } from '../../core/formats/file-name'
import { ZipWriter } from '../../core/formats/archive/zip'
import type { DeliverySettings } from '../../core/formats/delivery/settings'
import type { ManyState } from '../../shared/desk'
import type { OneAnswer, OneAsked, PictureDrawn } from '../workers/deliver'
import { recalledFile } from '../database/recalled'
import { drawPicture } from './draw-picture'
import { ownFolder } from './own-folder'

/** What is delivered at once: where drawings and their traces come from. */
export interface Source {
  drawing: (id: string) => Drawing | null
  samples: (hash: string) => TraceSample[] | null
}

/** Several drawings as files of one kind in one archive, made in a worker thread; it can be stopped. */
export class ManyDelivery {
  readonly state: ManyState
  private readonly folder = ownFolder()
  readonly file = join(this.folder, 'drawings.zip')
  private worker: Worker | null = null
  private stopped = false

  /** @param script the worker's code */
  constructor(
    private readonly script: string,
    private readonly source: Source,
    private readonly ids: readonly string[],
    private readonly settings: DeliverySettings,
  ) {
    this.state = { id: randomUUID(), done: 0, total: ids.length, name: '', state: 'making', left: [], size: 0 }
    void this.run().catch((e: unknown) => {
      console.error('A delivery failed:', e)
      this.state.state = 'failed'
    })
  }

  /** Ends it, and takes what was made away. */
  stop(): void {
    this.stopped = true
    void this.worker?.terminate()
    rmSync(this.folder, { recursive: true, force: true })
  }

  private async run(): Promise<void> {
    const out = createWriteStream(this.file)
    const zip = new ZipWriter()
    const names = new Set<string>()
    const write = (pieces: Uint8Array[]): void => {
      for (const p of pieces) {
        this.state.size += p.length
        out.write(p)
      }
    }
    for (const id of this.ids) {
      if (this.stopped) break
      const drawing = this.source.drawing(id)
      this.state.name = drawing?.name ?? ''
      const answer = drawing ? await this.one(drawing) : ({ why: 'It is not on the Desk any more.' } as const)
      if ('file' in answer) {
        const path = freeFileName(names, answer.file.name)
        names.add(path)
        write(
          zip.add({
            path,
            bytes: answer.file.bytes,
            packed: /^(image\/png|application\/(pdf|zip))$/.test(answer.file.mediaType),
          }),
        )
      } else this.state.left.push({ name: drawing?.name ?? id, why: answer.why })
      this.state.done++
    }
    write(zip.end())
    out.end()
    await finished(out)
    await this.worker?.terminate()
    if (!this.stopped) this.state.state = 'ready'
  }

  /** The file of one drawing, or why there is none. */
  private one(drawing: Drawing): Promise<Exclude<OneAnswer, { picture: unknown }>> {
    const lines = drawing.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
    const samples = Object.fromEntries(keptTracesOf(lines).map((hash) => [hash, this.source.samples(hash) ?? []]))
    const worker = (this.worker ??= new Worker(this.script, {
      eval: true,
      resourceLimits: { maxOldGenerationSizeMb: 2048 },
    }))
    return new Promise((resolve) => {
      const end = (answer: Exclude<OneAnswer, { picture: unknown }>): void => {
        worker.off('message', hear).off('error', fail).off('exit', gone)
        resolve(answer)
      }
      const hear = (answer: OneAnswer): void => {
        if (!('picture' in answer)) return end(answer)
        void drawPicture(answer.picture.svg, answer.picture).then(
          (picture) => worker.postMessage({ picture } satisfies PictureDrawn),
          () => worker.postMessage({ picture: null } satisfies PictureDrawn),
        )
      }
      // The next drawing gets a new thread.
      const lost = (why: string): void => {
        this.worker = null
        end({ why })
      }
      const fail = (e: Error): void => lost(e.message)
      const gone = (): void => lost('It took more memory than there is, or was stopped.')
      worker.on('message', hear).on('error', fail).on('exit', gone)
      const file = recalledFile(drawing.id, 'shapes')
      worker.postMessage({
        drawing: JSON.stringify(drawing),
        samples,
        settings: this.settings,
        file,
      } satisfies OneAsked)
    })
  }
}
