import type { Edit } from '#core/drawing/edits'
import type { Drawing, TraceSample } from '#core/drawing/model'
import type { ShelfProfile } from '#core/weight/shelf'
import type { AppendAnswer, Checkpoint, Conflict, DrawingCard, ImageInfo, OlderSteps, OpenDrawing } from '#shared/api'

/** A refusal by the server, with its sentence for people. Status 0: the server could not be reached. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message)
  }
}

const UNREACHABLE = 'The server cannot be reached. Your work is kept in this browser and will be saved when it answers.'

/** An answer that takes longer than this will not come, ms. */
const LONGEST_WAIT = 60_000

async function ask(path: string, init: RequestInit = {}): Promise<Response> {
  try {
    return await fetch(path, { ...init, signal: AbortSignal.timeout(LONGEST_WAIT) })
  } catch {
    throw new Refusal(0, UNREACHABLE)
  }
}

async function refusalOf(response: Response): Promise<Refusal> {
  const body = (await response.json().catch(() => null)) as { data?: { message?: string }; message?: string } | null
  const message = body?.data?.message ?? body?.message ?? `The server answered with an error (${response.status}). Try again.`
  return new Refusal(response.status, message)
}

async function json<T>(path: string, init?: RequestInit): Promise<T> {
  const response = await ask(path, init)
  if (!response.ok) throw await refusalOf(response)
  return (await response.json()) as T
}

const send = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
})

export const listDrawings = () => json<DrawingCard[]>('/api/drawings')
export const listTakenOff = () => json<DrawingCard[]>('/api/drawings?taken-off=1')
export const openDrawing = (id: string) => json<OpenDrawing>(`/api/drawings/${id}`)
export const createDrawing = (body: { name?: string; drawing?: Drawing }) =>
  json<{ id: string }>('/api/drawings', send('POST', body))
export const renameDrawing = (id: string, name: string) => json(`/api/drawings/${id}`, send('PATCH', { name }))
export const deleteDrawing = (id: string) => json(`/api/drawings/${id}`, { method: 'DELETE' })
export const restoreDrawing = (id: string) => json(`/api/drawings/${id}/restore`, { method: 'POST' })
export const olderSteps = (id: string, before: number) => json<OlderSteps>(`/api/drawings/${id}/edits?before=${before}`)
export const fetchTrace = (hash: string) => json<TraceSample[]>(`/api/traces/${hash}`)
export const uploadImage = (file: Blob) => json<ImageInfo>('/api/images', { method: 'POST', body: file })

export const listCheckpoints = (id: string) => json<Checkpoint[]>(`/api/drawings/${id}/checkpoints`)
export const addCheckpoint = (id: string, name: string) => json<Checkpoint>(`/api/drawings/${id}/checkpoints`, send('POST', { name }))
export const removeCheckpoint = (id: string, checkpoint: string) => json(`/api/drawings/${id}/checkpoints/${checkpoint}`, { method: 'DELETE' })
export const drawingAt = (id: string, revision: number) => json<Drawing>(`/api/drawings/${id}/at/${revision}`)

export const listProfiles = () => json<ShelfProfile[]>('/api/profiles')
export const saveProfiles = (profiles: readonly ShelfProfile[], base: readonly ShelfProfile[]) =>
  json<ShelfProfile[]>('/api/profiles', send('PUT', { profiles, base }))

/** Sends edits; a conflict is an answer, not an error. */
export async function appendEdits(
  id: string,
  base: number,
  edits: readonly Edit[],
  head: string | null,
): Promise<{ appended: AppendAnswer } | { conflict: Conflict }> {
  const response = await ask(`/api/drawings/${id}/edits`, send('POST', { base, head, edits }))
  if (response.status === 409) return { conflict: (await response.json()) as Conflict }
  if (!response.ok) throw await refusalOf(response)
  return { appended: (await response.json()) as AppendAnswer }
}
