import { createError } from 'h3'
import type { H3Error } from 'h3'

/** An error with a sentence for people, which the page shows as it is. */
export const refuse = (statusCode: number, message: string, data?: unknown): H3Error =>
  createError({ statusCode, statusMessage: 'Refused', message, data: { message, ...(data as object) } })

export const noDrawing = (): H3Error =>
  refuse(404, 'There is no such drawing. It may have been deleted; go back to the Desk.')

export const noShelf = (): H3Error => refuse(404, 'This shelf is not there any more. Load the Desk again.')

export const noSeat = (): H3Error => refuse(404, 'This seat is not there any more. Load the Desk again.')

export const noTask = (): H3Error => refuse(404, 'This task is not there any more. Go back to the Desk.')

export const noDelivery = (): H3Error => refuse(404, 'This delivery is not there any more. Begin it again.')
