import { defineEventHandler, getRouterParam } from 'h3'
import { endJob } from '../../../delivery/jobs'
import { noDelivery } from '../../../http/refuse'

/** Stops a delivery, or takes away what it made. */
export default defineEventHandler((event) => {
  if (!endJob(getRouterParam(event, 'id')!)) throw noDelivery()
  return { stopped: true }
})
