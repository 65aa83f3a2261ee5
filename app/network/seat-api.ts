import type { Belongings } from '#core/formats/studio/belongings'
import type { BelongingsChange } from '#core/formats/studio/list-change'
import type { OpenTask, Seat, Task, TaskBody } from '#shared/seats'
import type { StudioKind, StudioPreview } from '#shared/studio-file'
import { json, send } from './api'

export const listSeats = (wait?: number) => json<Seat[]>('/api/seats', {}, wait)
export const addSeat = (name: string, colour: string) => json<Seat>('/api/seats', send('POST', { name, colour }))
export const changeSeat = (id: string, change: { name?: string; colour?: string }) =>
  json(`/api/seats/${id}`, send('PATCH', change))
export const removeSeat = (id: string) => json(`/api/seats/${id}`, { method: 'DELETE' })
export const readBelongings = (seat: string) => json<Belongings>(`/api/seats/${seat}/belongings`)
/** A page that is left goes on sending it. */
export const changeBelongings = (seat: string, change: BelongingsChange) =>
  json(`/api/seats/${seat}/belongings`, { ...send('PATCH', change), keepalive: JSON.stringify(change).length < 50_000 })

export const listTasks = () => json<Task[]>('/api/tasks')
export const openTask = (id: string) => json<OpenTask>(`/api/tasks/${id}`)
export const beginTask = (body: TaskBody) => json<{ id: string; copies: number }>('/api/tasks', send('POST', body))
export const handCopies = (id: string, seats: readonly string[]) =>
  json<{ copies: number }>(`/api/tasks/${id}/copies`, send('POST', { seats }))
export const removeTask = (id: string) => json(`/api/tasks/${id}`, { method: 'DELETE' })

/** Where the studio file of a seat is fetched. */
export const studioAddress = (seat: string, kinds: readonly StudioKind[]): string =>
  `/api/seats/${seat}/studio?${kinds.map((k) => `kind=${k}`).join('&')}`
export const lookAtStudio = (seat: string, file: Blob) =>
  json<StudioPreview>(`/api/seats/${seat}/studio`, { method: 'POST', body: file })
export const takeOfStudio = (seat: string, file: Blob, take: string) =>
  json<StudioPreview>(`/api/seats/${seat}/studio?take=${take}`, { method: 'POST', body: file })
