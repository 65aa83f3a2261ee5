import type { H3Event } from 'h3'
import { getQuery } from 'h3'
import type { SeatTable } from '../database/seats'
import { noSeat, refuse } from './refuse'

/** The seat that a request is about, by its query; the only one where none is named. */
export function seatAsked(event: H3Event, seats: SeatTable): string {
  const { seat } = getQuery(event)
  if (seat === undefined) {
    // Nobody's choices go into somebody's.
    if (seats.list().length > 1) throw refuse(409, 'Sit down first: choose a seat on the Desk.')
    return seats.first()
  }
  const found = typeof seat === 'string' && seats.find(seat)
  if (!found) throw noSeat()
  return found.id
}
