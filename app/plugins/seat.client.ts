import { defineNuxtPlugin } from '#imports'
import { beginSeat } from '~/network/belongings'

/** What belongs to whoever sits here is there before anything is shown. */
export default defineNuxtPlugin(beginSeat)
