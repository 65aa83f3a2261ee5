import { BadArchive } from '../../core/formats/archive/zip'
import { hasInbornKeys, isTooDeep } from '../../core/formats/json'
import type { StoredImage } from '../database/images'
import { checkImage } from '../http/check-image'

export type Files = ReadonlyMap<string, Uint8Array>

/**
 * Ways to read the files of an archive of one kind, which throw BadArchive with a sentence that names the file.
 *
 * @param kind what the archive is, in words
 * @param advice what to do about one that is damaged
 */
export function readerOf(kind: string, advice: string) {
  const damaged = (path: string, what: string): BadArchive =>
    new BadArchive(
      `The ${kind} is damaged: of "${path}", ${what.replace(/\.$/, '')}. Nothing was brought in. ${advice}`,
    )

  function checked<T>(path: string, work: () => T): T {
    try {
      return work()
    } catch (e) {
      if (e instanceof BadArchive) throw e
      throw damaged(path, (e as Error).message.replace(/\.$/, ''))
    }
  }

  function parsed(path: string, text: string): unknown {
    const value = isTooDeep(text) ? undefined : checked(path, () => JSON.parse(text) as unknown)
    if (value === undefined || hasInbornKeys(value)) throw damaged(path, 'it holds fields that no drawing has')
    return value
  }

  function json(files: Files, path: string): unknown {
    const bytes = files.get(path)
    if (!bytes) throw damaged(path, 'it is missing')
    return parsed(path, new TextDecoder().decode(bytes))
  }

  async function pictureOf(path: string, content: Uint8Array): Promise<StoredImage> {
    const image = await checkImage(Buffer.from(content)).catch((e: Error) => {
      throw damaged(path, e.message)
    })
    if (!path.includes(image.sha256)) throw damaged(path, 'it is another picture than the one it is named for')
    return image
  }

  return { damaged, checked, parsed, json, pictureOf }
}
