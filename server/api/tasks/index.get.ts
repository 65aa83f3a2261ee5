import { defineEventHandler } from 'h3'
import { store } from '../../database/store'

export default defineEventHandler(async () => (await store()).tasks.list())
