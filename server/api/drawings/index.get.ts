import { defineEventHandler, getQuery } from 'h3'
import { store } from '../../database/store'

/** The drawings on the Desk; with `?bin=1` those in the bin. */
export default defineEventHandler(async (event) => {
  const { drawings } = (await store()).journal
  return drawings.list(getQuery(event).bin === '1' ? 'in the bin' : 'on the Desk')
})
