import { defineEventHandler, getQuery } from 'h3'
import { store } from '../../database/store'

/** The drawings on the Desk; with `?taken-off=1` those that were taken off it. */
export default defineEventHandler(async (event) => {
  const { drawings } = (await store()).journal
  return drawings.list(getQuery(event)['taken-off'] === '1' ? 'taken off' : 'on the Desk')
})
