import { newId } from '../../core/new-id'
import type { Store } from '../database/store'

/** Gives each of some seats a copy of a drawing, for a task; those that have one, and seats that are gone, get none. Answers how many. */
export function handOut(
  { journal, seats, tasks, thumbnails }: Store,
  task: { id: string; name: string },
  template: string,
  to: readonly string[],
): number {
  const drawing = journal.head(template)!.drawing
  const have = tasks.seatsOf(task.id)
  const wanted = new Set(to.filter((s) => !have.has(s)))
  const people = seats.list().filter((s) => wanted.has(s.id))
  const picture = thumbnails.latest(template)
  for (const seat of people) {
    const id = newId()
    journal.create({ ...drawing, id, name: `${task.name}, ${seat.name}` }, { seat: seat.id, task: task.id })
    if (picture !== undefined) thumbnails.keep(id, 0, picture)
  }
  return people.length
}
