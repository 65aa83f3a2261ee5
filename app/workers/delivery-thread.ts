import type { Remote } from 'comlink'
import { wrap } from 'comlink'
import type { DeliveryWorker } from './delivery.worker'

let thread: Worker | null = null
let remote: Remote<DeliveryWorker> | null = null

/** The thread in which files are made, started when it is first needed. */
export function deliveryThread(): Remote<DeliveryWorker> {
  thread ??= new Worker(new URL('./delivery.worker.ts', import.meta.url), { type: 'module' })
  return (remote ??= wrap<DeliveryWorker>(thread))
}

/** Ends the thread with what it is at. */
export function endDelivery(): void {
  thread?.terminate()
  thread = null
  remote = null
}
