import { deflateRawSync, inflateRawSync } from 'node:zlib'
import type { TraceSample } from '#core/model/model'
import type { Connection } from './sqlite'

/** The table `traces`: the samples of pen traces by the hash of their JSON. */
export class TraceTable {
  constructor(private readonly db: Connection) {}

  /** Keeps samples; those that are already there stay as they are. */
  insert(sha256: string, samples: readonly TraceSample[]): void {
    this.db
      .prepare('INSERT INTO traces (sha256, samples, created_at) VALUES (?, ?, ?) ON CONFLICT (sha256) DO NOTHING')
      .run(sha256, deflateRawSync(JSON.stringify(samples)), new Date().toISOString())
  }

  find(sha256: string): TraceSample[] | null {
    const bytes = this.db.prepare('SELECT samples FROM traces WHERE sha256 = ?').pluck().get(sha256) as
      Buffer | undefined
    return bytes ? (JSON.parse(inflateRawSync(bytes).toString('utf8')) as TraceSample[]) : null
  }
}
