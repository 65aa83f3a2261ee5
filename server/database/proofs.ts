import type { Connection } from './sqlite'

/** The table `proofs`: how many findings Proof had of each drawing, as of some revision. */
export class ProofTable {
  constructor(private readonly db: Connection) {}

  find(drawing: string, revision: number): number | undefined {
    return this.db
      .prepare('SELECT findings FROM proofs WHERE drawing_id = ? AND revision = ?')
      .pluck()
      .get(drawing, revision) as number | undefined
  }

  keep(drawing: string, revision: number, findings: number): void {
    this.db
      .prepare(
        `INSERT INTO proofs (drawing_id, revision, findings) VALUES (?, ?, ?)
         ON CONFLICT (drawing_id) DO UPDATE SET revision = excluded.revision, findings = excluded.findings WHERE excluded.revision >= proofs.revision`,
      )
      .run(drawing, revision, findings)
  }
}
