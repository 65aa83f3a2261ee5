import { defineEventHandler } from 'h3'
import { store } from '../../database/store'

/** The shelf of own profiles, in order. */
export default defineEventHandler(async () => (await store()).profiles.list())
