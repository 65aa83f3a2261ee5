import { expect, test } from 'vitest'
import { useLongWork } from '../../app/stores/long-work'

test("a report that comes in after the end is passed over, and an end takes away nobody else's work", () => {
  const { work, beginWork } = useLongWork()
  const found = beginWork('Finding lines', () => undefined)
  found.tell(0.3)
  expect(work.value).toMatchObject({ what: 'Finding lines', share: 0.3 })
  found.end()
  found.tell(1)
  expect(work.value).toBeNull()
  const turned = beginWork('Turning', () => undefined)
  const read = beginWork('Reading', () => undefined)
  turned.tell(0.5)
  read.tell(0)
  turned.end()
  expect(work.value).toMatchObject({ what: 'Reading' })
  read.end()
  expect(work.value).toBeNull()
})
