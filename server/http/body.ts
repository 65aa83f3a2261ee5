import type { H3Event } from 'h3'
import { getRequestHeader } from 'h3'
import type { Schema } from 'yup'
import { ValidationError } from 'yup'
import { hasInbornKeys, isTooDeep } from '../../core/formats/json'
import { refuse } from './refuse'

const inMegabytes = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`

/** The request's body as bytes, the same however often it is asked for; refuses one over `limit` before reading it all. */
export function readBytes(event: H3Event, limit: number): Promise<Buffer> {
  return (event.context.bytes ??= received(event, limit)) as Promise<Buffer>
}

async function received(event: H3Event, limit: number): Promise<Buffer> {
  const tooLarge = () =>
    refuse(
      413,
      `This is larger than ${inMegabytes(limit)}, which is more than can be taken. Make it smaller and try again.`,
    )
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > limit) throw tooLarge()
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req) {
    size += (chunk as Buffer).length
    if (size > limit) throw tooLarge()
    chunks.push(chunk as Buffer)
  }
  return Buffer.concat(chunks)
}

/** The request's JSON body in the shape of `schema`. */
export async function readJson<T>(event: H3Event, schema: Schema, limit: number): Promise<T> {
  const text = (await readBytes(event, limit)).toString('utf8')
  const notOurs = () =>
    refuse(400, 'The request is not one of ours: it is nested too deeply, or names fields that no drawing has.')
  if (isTooDeep(text)) throw notOurs()
  let value: unknown
  try {
    value = text ? JSON.parse(text) : {}
  } catch {
    throw refuse(400, 'The request is not valid JSON.')
  }
  if (hasInbornKeys(value)) throw notOurs()
  try {
    return (await schema.validate(value, { stripUnknown: true })) as T
  } catch (e) {
    if (e instanceof ValidationError)
      throw refuse(400, /[.?]$/.test(e.message) ? e.message : `The request cannot be used: ${e.message}.`)
    throw e
  }
}
