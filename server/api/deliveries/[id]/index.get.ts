import { defineEventHandler, getRouterParam } from 'h3'
import { jobOf } from '../../../delivery/jobs'
import { noDelivery } from '../../../http/refuse'

/** How far a delivery is. */
export default defineEventHandler((event) => {
  const job = jobOf(getRouterParam(event, 'id')!)
  if (!job) throw noDelivery()
  return job.state
})
