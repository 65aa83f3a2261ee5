import { ref } from 'vue'
import type { Edit } from '#core/document/edits'
import type { Drawing, TraceSample } from '#core/model/model'
import type { PassName } from '#core/model/pass-reached'
import type { ShelfProfile } from '#core/weight/shelf'
import type { Checkpoint, CopyBody, ImageInfo, SessionState } from '#shared/api'
import type { AppendAnswer, Conflict, OlderSteps, OpenDrawing } from '#shared/edits'
import type { ActBody, DrawingCard, ManyBody, ManyState, RestoreReport, Shelf } from '#shared/desk'
import { seatTaken } from './seat-taken'

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

/** Bringing a whole Desk in is long work, ms. */
const LONGEST_RESTORE = 30 * 60_000

async function ask(path: string, init: RequestInit = {}, wait = LONGEST_WAIT): Promise<Response> {
  try {
    const response = await fetch(path, { ...init, signal: AbortSignal.timeout(wait) })
    // Whoever asks whether the Desk is locked is answered in any case.
    if (path !== SESSION) isLockedOut.value = response.status === 401
    return response
  } catch {
    throw new Refusal(0, UNREACHABLE)
  }
}

const SESSION = '/api/session'

/** The server asks for its passphrase: a session is over, or was ended. */
export const isLockedOut = ref(false)

async function refusalOf(response: Response): Promise<Refusal> {
  const body = (await response.json().catch(() => null)) as { data?: { message?: string }; message?: string } | null
  const message =
    body?.data?.message ?? body?.message ?? `The server answered with an error (${response.status}). Try again.`
  return new Refusal(response.status, message)
}

export async function json<T>(path: string, init?: RequestInit, wait?: number): Promise<T> {
  const response = await ask(path, init, wait)
  if (!response.ok) throw await refusalOf(response)
  return (await response.json()) as T
}

export const send = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
})

export const sessionState = () => json<SessionState>(SESSION)
export const enterDesk = (pass: string) => json<SessionState>(SESSION, send('POST', { pass }))
export const leaveDesk = () => json(SESSION, { method: 'DELETE' })
export const endSessions = () => json('/api/sessions', { method: 'DELETE' })

export const listDrawings = () => json<DrawingCard[]>('/api/drawings')
export const listBin = () => json<DrawingCard[]>('/api/drawings?bin=1')
export const listShelves = () => json<Shelf[]>('/api/shelves')
export const addShelf = (name: string) => json<Shelf>('/api/shelves', send('POST', { name }))
export const renameShelf = (id: string, name: string) => json(`/api/shelves/${id}`, send('PATCH', { name }))
export const removeShelf = (id: string) => json(`/api/shelves/${id}`, { method: 'DELETE' })
export const actOn = (body: ActBody) => json<{ done: number }>('/api/desk', send('POST', body))
export const sizeOf = (id: string) => json<{ bytes: number }>(`/api/drawings/${id}/size`)
export const findingsCount = (id: string) => json<{ findings: number | null }>(`/api/drawings/${id}/findings`)
export const copyDrawing = (id: string, body: CopyBody) =>
  json<{ id: string }>(`/api/drawings/${id}/copy`, send('POST', { ...body, seat: seatTaken() }))
export const letStepsGo = (id: string, before: string) =>
  json<{ gone: number }>(`/api/drawings/${id}/let-go`, send('POST', { before }))
export const startDeliveries = (body: ManyBody) => json<ManyState>('/api/deliveries', send('POST', body))
export const deliveriesState = (id: string) => json<ManyState>(`/api/deliveries/${id}`)
export const stopDeliveries = (id: string) => json(`/api/deliveries/${id}`, { method: 'DELETE' })
const backupOf = (ids: readonly string[], more = ''): string =>
  `/api/backup?${[...ids.map((id) => `id=${encodeURIComponent(id)}`), more].filter(Boolean).join('&')}`

/** Where a backup of some drawings, or of the whole Desk, is fetched; refused where one file cannot hold it. */
export async function backupAddress(ids: readonly string[]): Promise<string> {
  await json(backupOf(ids, 'check=1'))
  return backupOf(ids)
}

export const bringBackupIn = (file: Blob) =>
  json<RestoreReport>('/api/backup', { method: 'POST', body: file }, LONGEST_RESTORE)
/** A drawing at its head, and the answer as it came. */
export async function openDrawing(id: string): Promise<{ opened: OpenDrawing; bytes: Blob }> {
  const response = await ask(`/api/drawings/${id}`)
  if (!response.ok) throw await refusalOf(response)
  const bytes = await response.blob()
  return { opened: JSON.parse(await bytes.text()) as OpenDrawing, bytes }
}

export const createDrawing = (body: { name?: string; drawing?: Drawing }) =>
  json<{ id: string }>('/api/drawings', send('POST', { ...body, seat: seatTaken() }))
export const renameDrawing = (id: string, name: string) => json(`/api/drawings/${id}`, send('PATCH', { name }))
export const deleteDrawing = (id: string) => json(`/api/drawings/${id}`, { method: 'DELETE' })
export const olderSteps = (id: string, before: number) => json<OlderSteps>(`/api/drawings/${id}/edits?before=${before}`)
export const fetchTrace = (hash: string) => json<TraceSample[]>(`/api/traces/${hash}`)
export const uploadImage = (file: Blob) => json<ImageInfo>('/api/images', { method: 'POST', body: file })

export const listCheckpoints = (id: string) => json<Checkpoint[]>(`/api/drawings/${id}/checkpoints`)
export const addCheckpoint = (id: string, name: string, pass?: PassName) =>
  json<Checkpoint>(`/api/drawings/${id}/checkpoints`, send('POST', { name, ...(pass && { pass }) }))
export const removeCheckpoint = (id: string, checkpoint: string) =>
  json(`/api/drawings/${id}/checkpoints/${checkpoint}`, { method: 'DELETE' })
export const drawingAt = (id: string, revision: number) => json<Drawing>(`/api/drawings/${id}/at/${revision}`)

const ofSeat = (): string => (seatTaken() ? `?seat=${seatTaken()!}` : '')
export const listProfiles = () => json<ShelfProfile[]>(`/api/profiles${ofSeat()}`)
export const saveProfiles = (profiles: readonly ShelfProfile[], base: readonly ShelfProfile[]) =>
  json<ShelfProfile[]>(`/api/profiles${ofSeat()}`, send('PUT', { profiles, base }))

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
