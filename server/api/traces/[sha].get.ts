import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import { store } from '../../database/store'
import { refuse } from '../../http/refuse'

export default defineEventHandler(async (event) => {
  const samples = (await store()).traces.find(getRouterParam(event, 'sha')!)
  if (!samples)
    throw refuse(404, 'What the pen recorded of this line is not here any more. The line itself stays as it is.')
  setResponseHeaders(event, { 'cache-control': 'public, max-age=31536000, immutable' })
  return samples
})
