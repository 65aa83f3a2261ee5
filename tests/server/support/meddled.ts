import { createHash } from 'node:crypto'
import { unzipped, zipOf } from '../../../core/formats/archive/zip'
import { LIMITS } from '../../../shared/api'

export const limits = { files: 1000, bytes: LIMITS.unpackedBackup }

/** The backup with some of its files changed, as one who may write hashes would. */
export function meddled(
  bytes: Uint8Array,
  change: (files: Map<string, Uint8Array>) => void,
  sign = true,
): Uint8Array<ArrayBuffer> {
  const files = unzipped(bytes, limits)
  change(files)
  const index = JSON.parse(Buffer.from(files.get('bellatrait.json')!).toString()) as { files: Record<string, string> }
  if (sign && typeof index === 'object' && index)
    index.files = Object.fromEntries(
      [...files]
        .filter(([p]) => p !== 'bellatrait.json')
        .map(([p, b]) => [p, createHash('sha256').update(b).digest('hex')]),
    )
  files.set('bellatrait.json', Buffer.from(JSON.stringify(index)))
  return Uint8Array.from(zipOf([...files].map(([path, b]) => ({ path, bytes: b }))))
}
