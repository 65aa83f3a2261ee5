/** Where this browser keeps whose seat it is. */
const SEAT = 'bellatrait:seat'

let seat: string | null = null

/** The id of the seat that is taken here; null where nobody's is. */
export const seatTaken = (): string | null => seat

/** The id of the seat that was taken in this browser last. */
export const lastSeat = (): string | null => localStorage.getItem(SEAT)

/** Takes a seat, in this page and in those that come; null for nobody's in this page. */
export function setSeatTaken(id: string | null): void {
  seat = id
  if (id) noteSeat(id)
}

/** Pages that are opened from now on take a seat. */
export function noteSeat(id: string): void {
  try {
    localStorage.setItem(SEAT, id)
  } catch {
    // A browser that keeps nothing asks again.
  }
}
