import type { Connection } from './sqlite'

export interface StoredImage {
  sha256: string
  mediaType: string
  width: number
  height: number
  bytes: Buffer
}

/** The table `images`: pictures by the hash of their content. */
export class ImageTable {
  constructor(private readonly db: Connection) {}

  /** Keeps an image; one that is already there stays as it is. */
  insert(image: StoredImage): void {
    this.db
      .prepare(
        `INSERT INTO images (sha256, media_type, width, height, bytes, created_at) VALUES (?, ?, ?, ?, ?, ?)
         ON CONFLICT (sha256) DO NOTHING`,
      )
      .run(image.sha256, image.mediaType, image.width, image.height, image.bytes, new Date().toISOString())
  }

  /** How much all pictures take, bytes. */
  totalBytes(): number {
    return this.db.prepare('SELECT coalesce(sum(octet_length(bytes)), 0) FROM images').pluck().get() as number
  }

  find(sha256: string): StoredImage | undefined {
    return this.db
      .prepare('SELECT sha256, media_type AS mediaType, width, height, bytes FROM images WHERE sha256 = ?')
      .get(sha256) as StoredImage | undefined
  }
}
